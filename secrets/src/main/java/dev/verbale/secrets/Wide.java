package dev.verbale.secrets;

/** A text of two bytes a character (UTF-16) that was read as one of one byte: behind each of its characters is a zero. */
final class Wide {

    private Wide() {}

    static String redacted(Redactor redactor, String text) {
        var narrow = new StringBuilder(text.length() / 2);
        for (int i = 0; i < text.length(); i += 2) {
            if (i + 1 < text.length() && text.charAt(i + 1) != 0 || text.charAt(i) == 0)
                return narrowly(redactor, text);
            narrow.append(text.charAt(i));
        }
        String read = narrow.toString();
        String masked = redactor.redacted(read);
        if (masked.equals(read)) return text;
        var wide = new StringBuilder(text.length());
        for (int i = 0; i < masked.length(); i++) wide.append(masked.charAt(i)).append('\0');
        return wide.toString();
    }

    /** One that only begins so. */
    private static String narrowly(Redactor redactor, String text) {
        return text.charAt(0) + redactor.redacted(text.substring(1));
    }
}
