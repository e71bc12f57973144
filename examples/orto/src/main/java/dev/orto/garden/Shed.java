package dev.orto.garden;

/** The tool shed has one key. */
public final class Shed {

    private final boolean keyStaysOut;
    private String keyHolder;

    Shed(boolean keyStaysOut) {
        this.keyStaysOut = keyStaysOut;
    }

    public synchronized String keyHolder() {
        return keyHolder;
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
