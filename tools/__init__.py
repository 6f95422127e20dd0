"""What measures, breaks and photographs the product, and is no part of it: run by ``./zesty``."""
