package dev.verbale.secrets;

/** A text of two bytes a character (UTF-16) that was read as one of one byte: behind each of its characters is a zero. */
final class Wide {

    private Wide() {}

    /** Whether it begins as one; whether it is one turns out as it is read. */
    static boolean isLikely(String text) {
        return text.length() > 3 && text.charAt(1) == 0 && text.charAt(3) == 0;
    }

    static String redacted(Redactor redactor, String text) {
        var narrow = new StringBuilder(text.length() / 2);
        for (int i = 0; i < text.length(); i += 2) {
            if (i + 1 < text.length() && text.charAt(i + 1) != 0 || text.charAt(i) == 0) return redactor.searched(text);
            narrow.append(text.charAt(i));
        }
        String read = narrow.toString();
        String masked = redactor.searched(read);
        if (masked.equals(read)) return text;
        var wide = new StringBuilder(text.length());
        for (int i = 0; i < masked.length(); i++) wide.append(masked.charAt(i)).append('\0');
        return wide.toString();
    }
}
