package dev.verbale.engine.text;

import dev.verbale.secrets.Redactor;

/** Masks a text of several parts (RFC 2046, 5.1), each of which says its name in its head. */
public final class MaskedParts {

    private MaskedParts() {}

    /** Without a boundary, or where nothing is parted by it, as any other text. */
    public static String of(String text, String mediaType, Redactor redactor) {
        String boundary = FormParts.boundary(mediaType);
        if (boundary == null) boundary = firstLine(text);
        String separator = "--" + boundary;
        if (boundary.isEmpty() || !text.contains(separator)) return redactor.redacted(text);
        var masked = new StringBuilder(text.length());
        int from = 0;
        for (int at = text.indexOf(separator); at >= 0; at = text.indexOf(separator, from)) {
            part(text.substring(from, at), redactor, masked);
            masked.append(separator);
            from = at + separator.length();
        }
        part(text.substring(from), redactor, masked);
        return masked.toString();
    }

    /** As such a body begins, also where its type does not say so. */
    private static String firstLine(String text) {
        int end = text.indexOf('\n');
        return text.startsWith("--") && end > 2 ? text.substring(2, end).strip() : "";
    }

    /** Its head ends at the first empty line, whatever lines end with in there. */
    private static void part(String part, Redactor redactor, StringBuilder masked) {
        int crlf = part.indexOf("\r\n\r\n");
        int lf = part.indexOf("\n\n");
        int head = crlf < 0 || (lf >= 0 && lf < crlf) ? lf : crlf;
        if (head < 0) {
            masked.append(redactor.redacted(part));
            return;
        }
        int body = head + (head == crlf ? 4 : 2);
        String name = FormParts.name(part.substring(0, head));
        masked.append(redactor.redacted(part.substring(0, head))).append(part, head, body);
        String end = part.endsWith("\r\n") ? "\r\n" : part.endsWith("\n") ? "\n" : "";
        if (name != null && redactor.isSecretName(name))
            masked.append(Redactor.MASK).append(end);
        else masked.append(redactor.redacted(part.substring(body)));
    }
}
