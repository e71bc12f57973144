package dev.orto.garden;

/** The garden's rules say no. */
public final class GardenException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int status;

    private GardenException(int status, String message) {
        super(message);
        this.status = status;
    }

    public static GardenException unknown(String message) {
        return new GardenException(404, message);
    }

    public static GardenException conflict(String message) {
        return new GardenException(409, message);
    }

    public static GardenException invalid(String message) {
        return new GardenException(422, message);
    }

    public static GardenException forbidden(String message) {
        return new GardenException(403, message);
    }

    /** The HTTP status that fits. */
    public int status() {
        return status;
    }
}
