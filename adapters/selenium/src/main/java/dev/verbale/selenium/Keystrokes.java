package dev.verbale.selenium;

import dev.verbale.Recorder;
import org.openqa.selenium.Keys;

/** What was typed, in words. */
final class Keystrokes {

    /** A shorter secret would mask ordinary words all over the run. */
    private static final int SHORTEST_SECRET = 6;

    private Keystrokes() {}

    /** {@code type 'Ada'}, {@code press Enter}; a secret is masked here, and wherever it turns up afterwards. */
    static String typed(Recorder recorder, Object[] arguments, boolean secret) {
        var text = new StringBuilder();
        var keys = new StringBuilder();
        CharSequence[] parts =
                arguments.length == 1 && arguments[0] instanceof CharSequence[] all ? all : new CharSequence[0];
        for (CharSequence part : parts) {
            for (int i = 0; i < part.length(); i++) {
                Keys key = Keys.getKeyFromUnicode(part.charAt(i));
                if (key == null) text.append(part.charAt(i));
                else keys.append(keys.isEmpty() ? "" : " ").append(named(key));
            }
        }
        if (secret && text.length() >= SHORTEST_SECRET) recorder.secret(text.toString());
        String typed = text.isEmpty() ? "" : "type " + (secret ? Recorder.MASK : "'" + text + "'");
        if (keys.isEmpty()) return typed.isEmpty() ? "type nothing" : typed;
        return (typed.isEmpty() ? "press " : typed + " and press ") + keys;
    }

    private static String named(Keys key) {
        String name = key.name();
        return name.charAt(0)
                + name.substring(1).toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
    }
}
