"""Mail: a message goes out to the post."""
