package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.util.Optional;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/** Tokens, and what people may whom a proxy names: made and ended by administrators. */
final class TokenAnswers {

    private static final int LONGEST_LABEL = 200;

    private final Tokens tokens;
    private final People people;

    TokenAnswers(Tokens tokens, People people) {
        this.tokens = tokens;
        this.people = people;
    }

    /** Whoever is named may something, or nothing any more. */
    void people(Request request, Response response, Access access) throws IOException, Refused {
        if (!access.isAdministrator()) throw new Refused(403, "only administrators say what people may");
        String name = Form.parameter(request, "name");
        if (name.isEmpty() || name.length() > LONGEST_LABEL)
            throw new Refused(422, "say who it is: name, at most " + LONGEST_LABEL + " characters");
        switch (request.getMethod()) {
            case "POST" -> {
                Role role = role(request, true);
                people.add(name, role, role == Role.ADMINISTER ? null : project(request));
                HubAnswer.nothing(response, 204);
            }
            case "DELETE" -> {
                if (people.end(name) == 0) throw new Refused(404, name + " may nothing here");
                HubAnswer.nothing(response, 204);
            }
            default -> throw new Refused(405, "what people may is said with POST, and taken back with DELETE");
        }
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
        HubAnswer.text(response, 201, tokens.add(role(request, false), project(request), label));
    }

    private static String project(Request request) throws Refused {
        String project = Form.parameter(request, "project");
        if (Projects.isName(project)) return project;
        throw new Refused(422, "a project is called by letters, digits, '.', '_' and '-'");
    }

    private static Role role(Request request, boolean mayAdminister) throws Refused {
        Optional<Role> role = Role.ofWord(Form.parameter(request, "role"));
        if (role.isPresent() && (mayAdminister || role.get() != Role.ADMINISTER)) return role.get();
        throw new Refused(422, "the role is send, read or label" + (mayAdminister ? ", or administer" : ""));
    }

    private void end(Response response, String label) throws IOException, Refused {
        int ended = tokens.end(label);
        if (ended == 0) throw new Refused(404, "there is no token of " + label);
        HubAnswer.text(response, 200, ended + " ended");
    }
}
