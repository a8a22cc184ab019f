"""The scene: what is asked comes in; what lands where, in millimetres, goes out."""
