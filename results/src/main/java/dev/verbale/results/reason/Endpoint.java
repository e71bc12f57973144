package dev.verbale.results.reason;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.regex.Pattern;

/**
 * What requests to one endpoint have in common, whatever thing each of them is about.
 *
 * @since 0.2.0
 */
public final class Endpoint {

    private static final Pattern VARIES = Pattern.compile("[0-9a-fA-F-]{16,}|.*\\d.*|.*%.*|.{40,}");

    private Endpoint() {}

    /**
     * The path of {@code url} with {@code varying} for each part that differs from request to request, such as {@code /plots/…/beds}: a part
     * that has a digit, is long or escaped. Empty where the address has no path, or is none.
     */
    public static String path(String url, String varying) {
        String raw;
        try {
            raw = new URI(url).getRawPath();
        } catch (URISyntaxException odd) {
            return "";
        }
        var path = new StringBuilder();
        for (String part : (raw == null ? "" : raw).split("/"))
            if (!part.isEmpty()) path.append('/').append(VARIES.matcher(part).matches() ? varying : part);
        return path.toString();
    }
}
