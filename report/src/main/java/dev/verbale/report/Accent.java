package dev.verbale.report;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A colour of a team's own, made lighter or darker until it can be read: in both forms of the page its contrast with the ground is at
 * least 4.5 to 1, as the Web Content Accessibility Guidelines 2.2 ask for text (success criterion 1.4.3).
 *
 * @param light on the light ground, as {@code #rrggbb}
 * @param dark on the dark one
 * @since 0.2.0
 */
public record Accent(String light, String dark) {

    private static final Pattern COLOUR = Pattern.compile("#[0-9a-fA-F]{6}");
    private static final int LIGHT_GROUND = 0xf8f4ea;
    private static final int DARK_GROUND = 0x1b1915;
    private static final double READABLE = 4.5;
    private static final int STEPS = 40;

    public Accent {
        check(light);
        check(dark);
    }

    /** @throws IllegalArgumentException where {@code colour} is none of the form {@code #rrggbb} */
    public static Accent of(String colour) {
        String stripped = colour.strip();
        check(stripped);
        int rgb = Integer.parseInt(stripped.substring(1), 16);
        return new Accent(readable(rgb, LIGHT_GROUND, 0x000000), readable(rgb, DARK_GROUND, 0xffffff));
    }

    private static void check(String colour) {
        if (!COLOUR.matcher(colour).matches())
            throw new IllegalArgumentException("the colour '" + colour + "' is none; write six digits such as #b5532a");
    }

    private static String readable(int colour, int ground, int towards) {
        for (int step = 0; step <= STEPS; step++) {
            int mixed = mixed(colour, towards, (double) step / STEPS);
            if (contrast(mixed, ground) >= READABLE) return String.format(Locale.ROOT, "#%06x", mixed);
        }
        throw new IllegalStateException("black and white can be read on either ground");
    }

    private static int mixed(int colour, int towards, double share) {
        int all = 0;
        for (int shift = 16; shift >= 0; shift -= 8) {
            int from = colour >> shift & 0xff;
            int to = towards >> shift & 0xff;
            all = all << 8 | (int) Math.round(from + (to - from) * share);
        }
        return all;
    }

    /** By the guidelines' formula for relative luminance. */
    static double contrast(int a, int b) {
        double lighter = Math.max(luminance(a), luminance(b));
        double darker = Math.min(luminance(a), luminance(b));
        return (lighter + 0.05) / (darker + 0.05);
    }

    private static double luminance(int colour) {
        return 0.2126 * linear(colour >> 16 & 0xff)
                + 0.7152 * linear(colour >> 8 & 0xff)
                + 0.0722 * linear(colour & 0xff);
    }

    private static double linear(int channel) {
        double value = channel / 255.0;
        return value <= 0.04045 ? value / 12.92 : Math.pow((value + 0.055) / 1.055, 2.4);
    }
}
