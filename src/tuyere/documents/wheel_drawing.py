"""A sheave to make, as a drawing at 1:1 in millimetres: SVG for paper, DXF for whoever cuts it."""

import io

from tuyere.core.basis.figure import both, fine
from tuyere.core.stations.speed.wheel import MadeWheel, pattern
from tuyere.documents.pages import PAGES

_MM = 1000.0


def sizes(wheel: MadeWheel, bore_given: bool = True) -> list[tuple[str, str]]:
    """The figures a turner works to, each with its name; a bore that was not given says so."""
    g = wheel.groove
    assert g.spacing_m and g.edge_m
    found = [
        ("Finished outside diameter", fine(wheel.outside_m)),
        ("Line (datum, pitch) diameter", fine(wheel.line_m)),
        ("Face width", fine(wheel.face_m)),
        ("Groove angle", f"{g.angle_deg:g}°"),
        ("Groove top width", fine(g.top_width_m)),
        ("Groove depth, at least", fine(g.depth_min_m)),
    ]
    if wheel.grooves > 1:
        found.append(("Groove to groove", fine(g.spacing_m)))
    found += [
        ("Groove centre to edge", fine(g.edge_m)),
        ("Bore" if bore_given else "Bore, assumed: measure the shaft", fine(wheel.bore_m)),
        ("Run-out at the rim, full reading", fine(wheel.radial_run_out_m)),
        ("Run-out at the face, full reading", fine(wheel.axial_run_out_m)),
    ]
    of = pattern(wheel)
    found += [
        ("Cast: pattern outside", fine(of.outside_m)),
        ("Cast: pattern face", fine(of.face_m)),
        ("Cast: core for the bore", fine(of.core_m)) if of.core_m else ("Cast: bore", "cast solid and drilled"),
    ]
    return found


def wheel_svg(wheel: MadeWheel) -> str:
    """The upper half in section over the shaft's axis, at 1:1."""
    half, face = wheel.outside_m / 2 * _MM, wheel.face_m * _MM
    path = " ".join(f"{'M' if k == 0 else 'L'}{x * _MM:.3f} {half - y * _MM:.3f}" for k, (x, y) in enumerate(wheel.profile)) + " Z"
    rows = sizes(wheel)
    width = max(face + 20, 130.0)
    return PAGES.get_template("wheel.svg").render(
        path=path,
        width=width,
        height=half + 26 + 6 * len(rows),
        half=half,
        face=face,
        rows=rows,
        title=f"{wheel.section.name} sheave, {both(wheel.outside_m)} outside, {wheel.grooves} groove{'s' if wheel.grooves > 1 else ''}",
    )


def wheel_dxf(wheel: MadeWheel) -> str:
    """The section's outline (closed), the axis, and the outside and bore seen from the end, in millimetres. DXF R2010."""
    import ezdxf  # here: it takes long to import, and few requests need it
    from ezdxf import units

    drawing = ezdxf.new("R2010", setup=True)  # type: ignore[attr-defined]
    drawing.units = units.MM
    for name, colour in (("SECTION", 7), ("AXIS", 1), ("END", 5)):
        drawing.layers.add(name, color=colour)
    space = drawing.modelspace()
    space.add_lwpolyline([(x * _MM, y * _MM) for x, y in wheel.profile], close=True, dxfattribs={"layer": "SECTION"})
    face, reach = wheel.face_m * _MM, 5.0
    space.add_line((-reach, 0), (face + reach, 0), dxfattribs={"layer": "AXIS", "linetype": "CENTER"})
    middle = (face + 20 + wheel.outside_m / 2 * _MM, 0)
    for diameter in (wheel.outside_m, wheel.line_m, wheel.bore_m):
        space.add_circle(middle, diameter / 2 * _MM, dxfattribs={"layer": "END"})
    for k, (name, value) in enumerate(sizes(wheel)):
        text = f"{name}: {value}".replace("°", "%%d")
        space.add_text(text, height=2.5, dxfattribs={"layer": "AXIS"}).set_placement((0, -8 - 4 * k))
    out = io.StringIO()
    drawing.write(out)
    return out.getvalue()
