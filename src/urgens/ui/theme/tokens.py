"""The colours of the interface, by what they mean."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Tokens:
    """Colours as #RRGGBB; `*_ground` is what a coloured word stands on."""

    paper: str
    sheet: str
    ink: str
    muted: str
    hair: str
    grid: str
    band: str
    front: str
    rear: str
    danger: str
    danger_ground: str
    warn: str
    warn_ground: str
    good: str
    good_ground: str
    steel: str
    metal: str
    fluid: tuple[str, str, str]  # no pressure, working, full


LIGHT = Tokens(
    paper="#EFE8D9",
    sheet="#FAF6EC",
    ink="#1E2226",
    muted="#5C574B",
    hair="#CDC3AE",
    grid="#E4DCCB",
    band="#D9D2BF",
    front="#174A86",
    rear="#A64B00",
    danger="#A80F3C",
    danger_ground="#F6DCDE",
    warn="#7A4B00",
    warn_ground="#F7E7BE",
    good="#1F6B5C",
    good_ground="#DCE9E2",
    steel="#D9D3C6",
    metal="#B9B2A3",
    fluid=("#F7E9BE", "#EDB62B", "#A96200"),
)
