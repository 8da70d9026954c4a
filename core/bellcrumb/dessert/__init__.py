"""The dessert whole: a stand, the layers built in it, and the thread of steps and gaps."""
