package dev.verbale.selenium.difficult;

import dev.verbale.browser.difficult.Site;
import dev.verbale.browser.difficult.Transcript;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * How much longer each command to a watched driver is under way than to a bare one, in turns: the least of so many turns of each,
 * since whatever else a machine does makes a command only slower. {@code bin/bench BrowserPairs [TURNS] [NAME]}.
 */
final class Pairs {

    private static final long NOTICED_MICROS = 30_000;

    private Pairs() {}

    public static void main(String[] arguments) throws Exception {
        int turns = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 5;
        String of = arguments.length > 1 ? arguments[1] : "";
        int commands = 0;
        int slower = 0;
        try (var site = new Site();
                var bare = new Side(false);
                var watched = new Side(true)) {
            for (Difficulty difficulty : Difficulties.all()) {
                if (!difficulty.name().contains(of)) continue;
                List<Transcript> without = new ArrayList<>();
                List<Transcript> with = new ArrayList<>();
                for (int i = 0; i < turns; i++) {
                    without.add(bare.meets(difficulty, site).call());
                    with.add(watched.meets(difficulty, site).call());
                }
                for (int i = 0; i < without.get(0).lines().size(); i++) {
                    long less = least(without, i);
                    long more = least(with, i);
                    commands++;
                    boolean isSlower = more > less * 1.1 && more > less + NOTICED_MICROS;
                    if (isSlower) slower++;
                    if (isSlower || !of.isEmpty())
                        System.out.printf(
                                Locale.ROOT,
                                "%-45s %-30.30s bare %7.1f ms, watched %7.1f ms%s%n",
                                difficulty.name(),
                                without.get(0).lines().get(i),
                                less / 1e3,
                                more / 1e3,
                                isSlower ? " SLOWER" : "");
                }
            }
        }
        System.out.printf("%,d commands, %,d slower by a tenth and 30 ms%n", commands, slower);
        System.exit(slower == 0 ? 0 : 1);
    }

    private static long least(List<Transcript> turns, int command) {
        return turns.stream()
                .filter(one -> one.micros().size() > command)
                .mapToLong(one -> one.micros().get(command))
                .min()
                .orElse(0);
    }
}
