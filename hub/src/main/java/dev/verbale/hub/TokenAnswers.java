package dev.verbale.hub;

import dev.verbale.hub.Tokens.Access;
import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.util.Optional;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/** Tokens, made and ended by administrators. */
final class TokenAnswers {

    private static final int LONGEST_LABEL = 200;

    private final Tokens tokens;

    TokenAnswers(Tokens tokens) {
        this.tokens = tokens;
    }

    void answer(Request request, Response response, Access access) throws IOException, Refused {
        if (!access.isAdministrator()) throw new Refused(403, "only administrators make and end tokens");
        String label = Form.parameter(request, "label");
        if (label.isEmpty() || label.length() > LONGEST_LABEL)
            throw new Refused(422, "say whose token it is: label, at most " + LONGEST_LABEL + " characters");
        switch (request.getMethod()) {
            case "POST" -> add(request, response, label);
            case "DELETE" -> end(response, label);
            default -> throw new Refused(405, "tokens are made with POST and ended with DELETE");
        }
    }

    private void add(Request request, Response response, String label) throws IOException, Refused {
        String project = Form.parameter(request, "project");
        Optional<Role> role = Role.ofWord(Form.parameter(request, "role"));
        if (!Projects.isName(project))
            throw new Refused(422, "a project is called by letters, digits, '.', '_' and '-'");
        if (role.isEmpty() || role.get() == Role.ADMINISTER) throw new Refused(422, "the role is send, read or label");
        HubAnswer.text(response, 201, tokens.add(role.get(), project, label));
    }

    private void end(Response response, String label) throws IOException, Refused {
        int ended = tokens.end(label);
        if (ended == 0) throw new Refused(404, "there is no token of " + label);
        HubAnswer.text(response, 200, ended + " ended");
    }
}
