"""Is a Tuyere of this plant at a port already? Exit 0 and print its address; 1: nothing there; 3: another program."""

import json
import sys
import urllib.error
import urllib.request


def main(port: str, plant: str) -> int:
    """Ask the health address of `port`."""
    address = f"http://127.0.0.1:{port}"
    try:
        with urllib.request.urlopen(f"{address}/api/health", timeout=3) as answer:
            found = json.load(answer)
    except urllib.error.HTTPError:
        return 3
    except (urllib.error.URLError, ConnectionError):
        return 1
    except (OSError, ValueError):
        return 3
    if found.get("name") != "tuyere" or found.get("plant") != plant:
        return 3
    print(address)
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:3]))
