"""Sheet: the page to print."""
