"""Choosing a drive: every stock combination judged, one by one in words (`judge`) and all at once in arrays (`search`)."""
