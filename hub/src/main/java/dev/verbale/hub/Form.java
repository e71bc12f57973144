package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import java.util.concurrent.CompletionException;
import org.eclipse.jetty.http.HttpException;
import org.eclipse.jetty.server.FormFields;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.util.Fields;

/** What a form says, or the query of an address, as a browser or {@code curl --data-urlencode} sends it. */
final class Form {

    private static final int MAX_FIELDS = 20;
    private static final int LONGEST = 16_384;

    private Form() {}

    /** @throws Refused where it is too long, or no form */
    static Fields of(Request request) throws Refused {
        try {
            return FormFields.getFields(request, MAX_FIELDS, LONGEST);
        } catch (IllegalStateException
                | IllegalArgumentException
                | CompletionException
                | HttpException.RuntimeException odd) {
            throw new Refused(400, "this is no form, or one of more than " + LONGEST + " bytes");
        }
    }

    /** What it says there; empty where it says nothing. */
    static String text(Fields form, String name) {
        String value = form.getValue(name);
        return value == null ? "" : value.strip();
    }

    /** What the address says behind its question mark; empty where it says nothing. */
    static String parameter(Request request, String name) {
        String value = Request.extractQueryParameters(request).getValue(name);
        return value == null ? "" : value.strip();
    }
}
