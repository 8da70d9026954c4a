"""What is asked, understood: lines into a mix and its answer, a vessel by key or by measures."""
