"""The colours of the interface, by what they mean."""

from dataclasses import dataclass
from typing import Any


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


class Theme:
    """The tokens in use; everything that paints asks this one object."""

    def __init__(self, tokens: Tokens) -> None:
        self._tokens = tokens
        self.scale = 1.0  # of everything painted; larger to be read from two metres

    def use(self, tokens: Tokens) -> None:
        """Paint with other tokens from here on; what is on screen has to be made anew."""
        self._tokens = tokens

    @property
    def tokens(self) -> Tokens:
        """The tokens in use."""
        return self._tokens

    @property
    def stands_back(self) -> bool:
        """Whether everything is painted for eyes that are far away."""
        return self.scale > 1.0

    @property
    def dark(self) -> bool:
        """Whether the dark tokens are in use."""
        return self._tokens is DARK

    def __getattr__(self, name: str) -> Any:
        return getattr(self._tokens, name)


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

DARK = Tokens(
    paper="#171613",
    sheet="#201F1B",
    ink="#F3ECDC",
    muted="#B5AC98",
    hair="#4A463C",
    grid="#2E2C26",
    band="#35332B",
    front="#86B8F5",
    rear="#F5935A",
    danger="#FF6F8E",
    danger_ground="#4A2230",
    warn="#F2C45A",
    warn_ground="#41351A",
    good="#7FCDB8",
    good_ground="#1E3530",
    steel="#3A3831",
    metal="#57534A",
    fluid=("#4A3A12", "#C98F14", "#FFD766"),
)
