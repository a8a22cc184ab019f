"""Albums of customers' pictures elsewhere: what one must do, and the practice album."""
