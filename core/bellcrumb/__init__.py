"""The craft of custards as pure Python: no web, no database, no clock it was not given.

Data flows one way: lines -> masses -> mix -> prediction -> plan -> run -> book.
Each package is one subject a pastry chef would recognise and imports only what is below it.
"""
