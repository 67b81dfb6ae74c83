"""How worn a part is against its limit, and when the limit will come."""
