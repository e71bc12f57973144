package dev.orto.garden;

/** The tool shed has one key. */
public final class Shed {

    /** What the lock on the key's box opens to. Everybody in the garden knows it, and no report should. */
    private static final String CODE = "kohlrabi-1897";

    private final boolean keyStaysOut;
    private String keyHolder;

    Shed(boolean keyStaysOut) {
        this.keyStaysOut = keyStaysOut;
    }

    public synchronized String keyHolder() {
        return keyHolder;
    }

    /** Says no where {@code code} is not the box's. */
    public static void mustOpen(String code) {
        if (!code.equals(CODE)) throw GardenException.invalid("This code does not open the box");
    }

    public synchronized void takeKey(String neighbour) {
        if (keyHolder != null) throw GardenException.conflict("The key is with " + keyHolder);
        keyHolder = neighbour;
    }

    public synchronized void returnKey() {
        if (keyHolder == null) throw GardenException.conflict("The key hangs on its hook");
        if (!keyStaysOut) keyHolder = null;
    }
}
