package dev.verbale.packing;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What was left out of a pack, counted, for the run to say. Not for several threads. */
final class Reduction {

    private static final Map<String, String> ONE = Map.of(
            "frames", "sequence of frames",
            "page-source", "page source",
            "console", "console of a browser",
            "network", "log of a browser's network",
            "bodies", "body of an exchange",
            "logs", "log line");
    private static final Map<String, String> MANY = Map.of(
            "frames", "sequences of frames",
            "page-source", "page sources",
            "console", "consoles of browsers",
            "network", "logs of a browser's network",
            "bodies", "bodies of exchanges",
            "logs", "log lines");

    private final Map<String, Integer> byPart = new LinkedHashMap<>();
    private int calmTests;
    private int withoutRoom;

    void calmTest() {
        calmTests++;
    }

    void part(String part) {
        byPart.merge(part, 1, Integer::sum);
    }

    void withoutRoom() {
        withoutRoom++;
    }

    /** Such as {@code what happened in 98 tests that need no attention, 3 videos}; empty where nothing was. */
    String text() {
        List<String> parts = new ArrayList<>();
        if (calmTests > 0)
            parts.add("what happened in " + calmTests
                    + (calmTests == 1 ? " test that needs no attention" : " tests that need no attention"));
        for (String part : PackOptions.PARTS) {
            int count = byPart.getOrDefault(part, 0);
            if (count == 1) parts.add("1 " + ONE.getOrDefault(part, part));
            else if (count > 1) parts.add(count + " " + MANY.getOrDefault(part, part + "s"));
        }
        if (withoutRoom > 0)
            parts.add((withoutRoom == 1 ? "1 file" : withoutRoom + " files") + " for which there was no room");
        return String.join(", ", parts);
    }
}
