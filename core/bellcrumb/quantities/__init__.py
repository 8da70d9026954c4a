"""Units, amounts as cooks write them, and how they are shown back."""
