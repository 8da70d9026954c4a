"""What ./crumb does. Standard library only: it runs before anything is installed."""
