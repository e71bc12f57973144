package dev.verbale.selenium;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/** A window, or a frame that has a process of its own, as the debugging protocol sees it. */
final class Target {

    final String sessionId;
    final String targetId;
    final boolean isWindow;

    /** For each document in here the context that its own scripts run in: by the frame's id. */
    final Map<String, Long> contexts = new ConcurrentHashMap<>();

    /** What an open dialog says; null where none is open. */
    volatile @Nullable String dialog;

    volatile boolean crashed;

    /** What was shown last; null before the first frame. */
    volatile byte @Nullable [] lastFrame;

    /** Since when frames of it are wanted. */
    volatile long framesFrom;

    /** How long the first of them took to come; 0 before it came. */
    volatile long nanosOfFrame;

    /** Whether frames of it are taken, now and then. */
    final AtomicBoolean sendsFrames = new AtomicBoolean();

    /** Whether the browser sends frames of it now. */
    final AtomicBoolean waitsForFrame = new AtomicBoolean();

    Target(String sessionId, String targetId, boolean isWindow) {
        this.sessionId = sessionId;
        this.targetId = targetId;
        this.isWindow = isWindow;
    }
}
