package dev.verbale.hub;

import dev.verbale.report.Page;
import dev.verbale.results.Escaped;
import java.io.IOException;
import java.util.List;

/** The pages of the hub itself: where one enters, and which projects there are. They run no script. */
final class HubPages {

    static final String POLICY = "default-src 'none'; style-src 'unsafe-inline'; font-src data:; base-uri 'none';"
            + " form-action 'self'; frame-ancestors 'none'";

    private HubPages() {}

    /**
     * @param why what was wrong before; empty for nothing
     * @param at the path of what was asked for: a proxy may have put more before it
     */
    static String enter(String why, String at) throws IOException {
        String up = "../".repeat((int) at.chars().filter(c -> c == '/').count() - 1);
        return page(
                "Enter the hub",
                (why.isEmpty() ? "" : "<p role=\"alert\"><b class=\"failed\">" + Escaped.html(why) + "</b></p>")
                        + "<form method=\"post\" action=\"" + up + Entrance.PATH.substring(1) + "\">"
                        + "<p><label>Your token, with the role <i>read</i><br>"
                        + "<input type=\"password\" name=\"token\" size=\"40\" autocomplete=\"current-password\" required></label></p>"
                        + "<p><button>Enter</button></p></form>");
    }

    static String projects(List<String> projects) throws IOException {
        var list = new StringBuilder("<ul>");
        for (String project : projects)
            list.append("<li><a href=\"projects/" + project + "/\">" + project + "</a></li>"); // names are plain
        return page(
                "Projects",
                projects.isEmpty()
                        ? "<p>There is none yet. It begins with a token that may send: <code>verbale hub token --project NAME"
                                + " --role send</code></p>"
                        : list + "</ul>");
    }

    private static String page(String title, String content) throws IOException {
        return "<!DOCTYPE html><html lang=\"en\"><meta charset=\"utf-8\"><meta name=\"viewport\""
                + " content=\"width=device-width\"><title>" + title + " · Verbale</title><style>" + Page.stylesheet()
                + "</style><body><main><h1>" + title + "</h1>" + content + "</main></body></html>";
    }
}
