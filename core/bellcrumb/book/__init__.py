"""The record: what really happened against what was predicted."""
