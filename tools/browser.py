"""Debian's Chromium as Playwright starts it here: no network, no monitor."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Browser, sync_playwright

EXECUTABLE = next(
    filter(os.path.exists, ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium")),
    "/usr/bin/chromium",
)
"""The shell has no window of its own to draw: a page costs a quarter less of the processor."""

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--in-process-gpu",
    "--num-raster-threads=1",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    # Chromium's own address bar would start two renderers of its own with each window, nearly
    # half of what a new window costs; nobody sees it here.  The rest is what Playwright turns
    # off: the last such flag counts.
    "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,SpareRendererForSitePerProcess,"
    "AvoidUnnecessaryBeforeUnloadCheckSync,DestroyProfileOnBrowserClose,HttpsUpgrades,"
    "HttpsFirstBalancedModeAutoEnable,LensOverlay,MediaRouter,PaintHolding,OptimizationHints,"
    "ThirdPartyStoragePartitioning,AvoidCorsURLLoaderRestartOnRedirect,TcpPortRandomizationWin,"
    "NetworkTimeServiceQuerying,AimEnabled,PreconnectToSearch",
]


@contextmanager
def chromium() -> Iterator[Browser]:
    """A headless browser."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=EXECUTABLE, args=FLAGS)
        yield browser
        browser.close()
