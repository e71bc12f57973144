package dev.verbale.folder;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;

/**
 * Makes file names that a person understands out of any text: letters and digits of any language stay, everything else
 * becomes a hyphen. The result is a valid name on Linux, macOS and Windows, never hidden, never empty, and has at most
 * {@value #LONGEST} characters.
 *
 * @since 0.2.0
 */
public final class FileNames {

    /** In characters. Each takes at most 4 bytes, and file systems allow 255. */
    public static final int LONGEST = 56;

    /** Windows opens these devices whatever folder they are asked for in. */
    private static final Set<String> DEVICES = Set.of(
            "con", "prn", "aux", "nul", "com1", "com2", "com3", "com4", "com5", "com6", "com7", "com8", "com9", "lpt1",
            "lpt2", "lpt3", "lpt4", "lpt5", "lpt6", "lpt7", "lpt8", "lpt9");

    private FileNames() {}

    /** A name for {@code text} that keeps its capitals, such as {@code RotaPageTest}. */
    public static String of(String text) {
        var name = new StringBuilder();
        int characters = 0;
        for (int c :
                Normalizer.normalize(text, Normalizer.Form.NFC).codePoints().toArray()) {
            if (characters == LONGEST) break;
            if (Character.isLetterOrDigit(c)) name.appendCodePoint(c);
            else if (!name.isEmpty() && name.charAt(name.length() - 1) != '-') name.append('-');
            else continue;
            characters++;
        }
        int end = name.length();
        while (end > 0 && name.charAt(end - 1) == '-') end--;
        name.setLength(end);
        if (name.isEmpty()) return "unnamed";
        String made = name.toString();
        return DEVICES.contains(made.toLowerCase(Locale.ROOT)) ? made + "-" : made;
    }

    /** A file name in small letters, so that two names never differ by capitals alone. */
    public static String small(String text) {
        return of(text).toLowerCase(Locale.ROOT);
    }

    /** {@code name} in ASCII alone: letters without their accents, and every other character by its number. */
    public static String ascii(String name) {
        var ascii = new StringBuilder();
        Normalizer.normalize(name, Normalizer.Form.NFD).codePoints().forEach(c -> {
            if (c < 128) ascii.appendCodePoint(c);
            else if (Character.getType(c) != Character.NON_SPACING_MARK)
                ascii.append('u').append(Integer.toHexString(c));
        });
        if (ascii.length() <= LONGEST + 20) return ascii.toString();
        // By numbers a name grows; what makes it another one than its neighbours must not be cut.
        return ascii.substring(0, LONGEST) + "-" + Integer.toHexString(name.hashCode()) + extension(name);
    }

    /** The extension of {@code fileName} in small letters with its dot, or nothing where it has none that is plain. */
    public static String extension(String fileName) {
        int dot = fileName.lastIndexOf('.');
        if (dot <= 0) return "";
        String extension = fileName.substring(dot).toLowerCase(Locale.ROOT);
        return extension.matches("\\.[a-z0-9]{1,8}") ? extension : "";
    }
}
