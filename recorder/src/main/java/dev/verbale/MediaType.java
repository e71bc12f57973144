package dev.verbale;

/**
 * What an attachment's content is, as a media type (RFC 6838). A type of its own, so that it is not taken for the attachment's
 * name. Any text makes one and nothing is checked: a wrong one costs no test its evidence.
 *
 * <pre>{@code
 * Verbale.attach("seeds.zip", camera.image(), MediaType.of("application/zip"));
 * }</pre>
 *
 * @param value such as {@code text/csv}, with parameters where there are any; empty where null was given
 * @since 0.2.0
 */
public record MediaType(String value) {

    /** Nobody knows: the first bytes tell where they can. */
    public static final MediaType UNKNOWN = new MediaType("application/octet-stream");

    /** Plain text, as UTF-8. */
    public static final MediaType TEXT = new MediaType("text/plain");

    /** Comma-separated values. */
    public static final MediaType CSV = new MediaType("text/csv");

    /** A document of HTML. */
    public static final MediaType HTML = new MediaType("text/html");

    /** A document of XML. */
    public static final MediaType XML = new MediaType("application/xml");

    /** JSON. */
    public static final MediaType JSON = new MediaType("application/json");

    /** An image without loss. */
    public static final MediaType PNG = new MediaType("image/png");

    /** A photograph. */
    public static final MediaType JPEG = new MediaType("image/jpeg");

    /** A document to print. */
    public static final MediaType PDF = new MediaType("application/pdf");

    public MediaType {
        value = value == null ? "" : value;
    }

    /** Any other, such as {@code application/zip}. */
    public static MediaType of(String value) {
        return new MediaType(value);
    }

    @Override
    public String toString() {
        return value;
    }
}
