package dev.verbale.cli;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Sizes of files as people write them, such as {@code 500MB}, in powers of ten. */
final class SizeText {

    private static final Pattern SIZE = Pattern.compile("(\\d{1,9})\\s*([kMGT]?)B?");

    private SizeText() {}

    /** In bytes; empty where it is no size. */
    static Optional<Long> bytes(String text) {
        Matcher size = SIZE.matcher(text.strip());
        if (!size.matches()) return Optional.empty();
        long unit = 1;
        for (int i = "kMGT".indexOf(size.group(2)); i >= 0 && !size.group(2).isEmpty(); i--) unit *= 1_000;
        return Optional.of(Long.parseLong(size.group(1)) * unit);
    }

    static String of(long bytes) {
        if (bytes < 1_000_000) return bytes / 1_000 + " kB";
        return bytes < 1_000_000_000 ? bytes / 1_000_000 + " MB" : String.format(Locale.ROOT, "%.1f GB", bytes / 1e9);
    }
}
