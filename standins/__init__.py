"""Small simulated devices. Each is a process of its own and speaks to the same door a real one
would: HTTP with a token. They are labelled simulated wherever they show."""
