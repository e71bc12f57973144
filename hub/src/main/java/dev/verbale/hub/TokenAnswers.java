package dev.verbale.hub;

import dev.verbale.hub.Uploads.Refused;
import java.io.IOException;
import java.util.Optional;
import org.eclipse.jetty.server.Request;

/** Tokens, and what people may: made and ended by administrators. */
final class TokenAnswers {

    private static final int LONGEST_LABEL = 200;

    private final Tokens tokens;
    private final People people;

    TokenAnswers(Tokens tokens, People people) {
        this.tokens = tokens;
        this.people = people;
    }

    void addPerson(Asked asked) throws IOException, Refused {
        String name = text(asked, "name", "who it is");
        Role role = role(asked.request(), true);
        people.add(name, role, role == Role.ADMINISTER ? null : project(asked.request()));
        HubAnswer.nothing(asked.response(), 204);
    }

    void endPerson(Asked asked) throws IOException, Refused {
        String name = text(asked, "name", "who it is");
        if (people.end(name) == 0) throw new Refused(404, name + " may do nothing here");
        HubAnswer.nothing(asked.response(), 204);
    }

    void add(Asked asked) throws IOException, Refused {
        String label = text(asked, "label", "whose token it is");
        String token = tokens.add(role(asked.request(), false), project(asked.request()), label);
        HubAnswer.text(asked.response(), 201, token);
    }

    void end(Asked asked) throws IOException, Refused {
        String label = text(asked, "label", "whose token it is");
        int ended = tokens.end(label);
        if (ended == 0) throw new Refused(404, "there is no token of " + label);
        HubAnswer.text(asked.response(), 200, ended + " ended");
    }

    private static String text(Asked asked, String name, String what) throws Refused {
        String text = Form.parameter(asked.request(), name);
        if (!text.isEmpty() && text.length() <= LONGEST_LABEL) return text;
        throw new Refused(422, "say " + what + ": " + name + ", at most " + LONGEST_LABEL + " characters");
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
}
