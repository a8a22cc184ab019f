"""Files: blobs by their content, whether they are whole, who points to them, how long they are kept."""
