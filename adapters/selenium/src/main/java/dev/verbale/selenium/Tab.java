package dev.verbale.selenium;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** A window, or a frame that has a process of its own, as the debugging protocol sees it. */
final class Tab {

    final String session;
    final String target;
    final boolean isWindow;

    /** For each document in here the context that its own scripts run in: by the frame's id. */
    final Map<String, Long> contexts = new ConcurrentHashMap<>();

    /** What an open dialog says; null where none is open. */
    volatile @Nullable String dialog;

    volatile boolean crashed;

    Tab(String session, String target, boolean isWindow) {
        this.session = session;
        this.target = target;
        this.isWindow = isWindow;
    }
}
