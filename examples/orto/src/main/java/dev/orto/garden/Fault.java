package dev.orto.garden;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** Bugs that can be planted, each one that somebody might have written. */
public enum Fault {
    /** Swapping two days writes the first and forgets the second. */
    ROTA_SWAP_HALF_DONE,
    /** A loan of the last sachet leaves the stock as it was. */
    LAST_SACHET_NOT_COUNTED,
    /** The compost's history is read sample by sample from a slow probe. */
    COMPOST_HISTORY_SLOW,
    /** A redesign renamed the button that lends seeds. */
    LEND_BUTTON_RENAMED,
    /** The script of the shed's page calls a function that was renamed. */
    SHED_SCRIPT_BROKEN,
    /** The plan of the plots draws plot 7 where the path is. */
    PLAN_DRAWN_WRONG,
    /** The weather's first response of the day comes before its measurements do. */
    WEATHER_COLD_CACHE,
    /** A weighing that is written down answers with another status than it did. */
    WEIGHING_STATUS_CHANGED,
    /** The totals of the harvest are cut to whole kilograms for one crop. */
    HARVEST_TOTAL_CUT,
    /** The years of the harvest are divided by the days of rain, and one of them had none. */
    HARVEST_OF_DRY_YEAR,
    /** A plot tells its area with its unit, as text. */
    PLOT_AREA_AS_TEXT,
    /** A shed key that is brought back is not written down. */
    SHED_KEY_STAYS_OUT;

    /** {@code all}, {@code none}, or names with commas between, in any case, with hyphens or underscores. */
    public static Set<Fault> parse(String text) {
        if (text == null || text.isBlank() || text.equals("none")) return EnumSet.noneOf(Fault.class);
        if (text.equals("all")) return EnumSet.allOf(Fault.class);
        Set<Fault> faults = EnumSet.noneOf(Fault.class);
        for (String name : text.split(",")) {
            String constant = name.strip().toUpperCase(Locale.ROOT).replace('-', '_');
            faults.add(Arrays.stream(values())
                    .filter(fault -> fault.name().equals(constant))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("orto.faults=" + text + ": no fault is called '"
                            + name + "'. Write all, none, or some of " + Arrays.toString(values()))));
        }
        return faults;
    }
}
