package dev.verbale.report;

import dev.verbale.folder.MediaTypes;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What makes a page a team's own. Nothing of it is a link, and a logo is inside the page.
 *
 * @param title beside the name of the run; null for none
 * @param subtitle below the sentence of the summary; null for none
 * @param logo an image as a {@code data:} address; null for none
 * @param accent for links and the rule beside the times; null for the page's own
 * @since 0.2.0
 */
public record PageLook(
        @Nullable String title,
        @Nullable String subtitle,
        @Nullable String logo,
        @Nullable Accent accent) {

    /** The page's own. */
    public static final PageLook PLAIN = new PageLook(null, null, null, null);

    private static final int LARGEST_LOGO = 200_000;
    private static final Set<String> IMAGES =
            Set.of("image/png", "image/jpeg", "image/gif", "image/webp", "image/svg+xml");

    /**
     * Of settings, which are texts; empty ones are the page's own.
     *
     * @param logo a file: PNG, JPEG, GIF, WebP or SVG of at most 200 kB
     * @param accent as CSS writes it: {@code #b5532a}
     * @throws IllegalArgumentException where the file is no such image, too large, or cannot be read, or the colour is none
     */
    public static PageLook of(String title, String subtitle, String logo, String accent) {
        return new PageLook(
                title.isBlank() ? null : title,
                subtitle.isBlank() ? null : subtitle,
                logo.isBlank() ? null : address(Path.of(logo)),
                accent.isBlank() ? null : Accent.of(accent));
    }

    private static String address(Path logo) {
        String type = MediaTypes.ofFile(
                logo.getFileName() == null ? "" : logo.getFileName().toString());
        if (!IMAGES.contains(type))
            throw new IllegalArgumentException("the logo " + logo + " is no PNG, JPEG, GIF, WebP or SVG by its name");
        try {
            byte[] bytes = PlainFile.bytes(logo.toRealPath(), LARGEST_LOGO);
            return "data:" + type + ";base64," + Base64.getEncoder().encodeToString(bytes);
        } catch (NoSuchFileException none) {
            throw new IllegalArgumentException("there is no logo " + logo, none);
        } catch (IOException unreadable) {
            throw new IllegalArgumentException("the logo cannot be read: " + unreadable.getMessage(), unreadable);
        }
    }
}
