package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a logger wrote.
 *
 * @param level in small letters, such as {@code warn}
 * @param logger its name
 * @param thread the name of the thread that wrote it, which is not the recording one where a logger works asynchronously
 * @param context what it knew of its surroundings, such as a mapped diagnostic context
 * @param thrown what was logged with it
 * @since 0.2.0
 */
public record LogLine(
        String level,
        String logger,
        String text,
        String thread,
        Map<String, String> context,
        @Nullable Throwable thrown) {

    public LogLine {
        context = SafeCopies.textsByName(context);
    }
}
