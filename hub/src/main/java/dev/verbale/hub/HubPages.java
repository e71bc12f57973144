package dev.verbale.hub;

import dev.verbale.results.Escaped;
import dev.verbale.viewer.RunsSite;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.eclipse.jetty.server.Response;

/** The pages of the hub itself: where one enters, and which projects there are. They run no script. */
final class HubPages {

    private static final String POLICY =
            "default-src 'none'; style-src 'unsafe-inline'; font-src data:; base-uri 'none';"
                    + " form-action 'self'; frame-ancestors 'none'";

    private HubPages() {}

    /**
     * @param why what was wrong before; empty for nothing
     * @param at the path of what was asked for: a proxy may have put more before it
     * @param withOpenId whether a provider knows people
     */
    static String enter(String why, String at, boolean withOpenId) throws IOException {
        String up = "../".repeat((int) at.chars().filter(c -> c == '/').count() - 1);
        boolean isEntrance = at.startsWith(Entrance.PATH);
        String provider = up
                + OpenIdEntrance.BEGIN.substring(1)
                + (isEntrance ? "" : "?to=" + URLEncoder.encode(at.substring(1), StandardCharsets.UTF_8));
        return page(
                "Enter the hub",
                (why.isEmpty() ? "" : "<p role=\"alert\"><b class=\"failed\">" + Escaped.html(why) + "</b></p>")
                        + (withOpenId
                                ? "<p><a href=\"" + provider
                                        + "\">Enter with your account</a></p><p>Or with a token:</p>"
                                : "")
                        + "<form method=\"post\" action=\"" + up + Entrance.PATH.substring(1) + "\">"
                        + "<p><label>Your token, with the role <i>read</i><br>"
                        + "<input type=\"password\" name=\"token\" size=\"40\" autocomplete=\"current-password\" required></label></p>"
                        + "<p><button>Enter</button></p></form>");
    }

    /** Of somebody who has just entered by the provider: the browser goes on at once, as from a link of this page. */
    static String entered(String name, String to) throws IOException {
        String link = Escaped.html(to);
        return page(
                "You have entered",
                "<meta http-equiv=\"refresh\" content=\"0;url=" + link + "\"><p>You are " + Escaped.html(name)
                        + ". <a href=\"" + link + "\">Go on</a></p>");
    }

    /** Of somebody who is let in, and who may see nothing here. */
    static String stranger(String name, boolean mayLeave) throws IOException {
        return page(
                "Projects",
                "<p>You are " + Escaped.html(name) + ", and nobody has said what you may see here:"
                        + " <code>verbale hub person --name NAME --role read --project NAME</code></p>"
                        + (mayLeave ? leave(name) : ""));
    }

    private static String leave(String name) {
        return "<form class=\"dim\" style=\"margin-top: 1.6rem\" method=\"post\" action=\"leave\"><p>You are "
                + Escaped.html(name) + ". <button>Leave</button></p></form>";
    }

    /**
     * @param name of who looks
     * @param mayLeave whether they have entered with this browser
     * @param newest the cells of each project's newest run, by project; empty for one without a run
     */
    static String projects(String name, boolean mayLeave, Map<String, String> newest) throws IOException {
        var rows = new StringBuilder("<table><tbody>");
        newest.forEach((project, cells) -> rows.append("<tr><th scope=\"row\"><a href=\"projects/")
                .append(project) // names are plain
                .append("/\">")
                .append(project)
                .append("</a></th>")
                .append(cells.isEmpty() ? "<td class=\"dim\" colspan=\"5\">no run yet</td>" : cells)
                .append("</tr>"));
        return page(
                "Projects",
                newest.isEmpty()
                        ? "<p>There is none yet. It begins with a token that may send: <code>verbale hub token --project NAME"
                                + " --role send</code></p>"
                        : rows + "</tbody></table>" + (mayLeave ? leave(name) : ""));
    }

    /** Such as {@code 1 run}, {@code 3 runs}. */
    static String count(int number, String what) {
        return number + " " + what + (number == 1 ? "" : "s");
    }

    /** What these pages may do besides: be seen, and send their own forms, with the hub as their origin, which no browser says without a referrer. */
    static void guard(Response response) {
        response.getHeaders().put("Content-Security-Policy", POLICY);
        response.getHeaders().put("Referrer-Policy", "same-origin");
    }

    private static String page(String title, String content) throws IOException {
        return page("", title, content);
    }

    /**
     * @param runs where the project's runs are; empty where this is of no project
     * @param title as plain text
     */
    static String page(String runs, String title, String content) throws IOException {
        return "<!DOCTYPE html><html lang=\"en\"><meta charset=\"utf-8\"><meta name=\"viewport\""
                + " content=\"width=device-width\"><title>" + Escaped.html(title) + " · Verbale</title><style>"
                + RunsSite.stylesheet()
                + "</style><body><main class=\"runs\"><header class=\"runs-head\">"
                + (runs.isEmpty() ? "" : "<nav><a href=\"" + runs + "\">All runs</a></nav>")
                + "<h1 dir=\"auto\">" + Escaped.html(title) + "</h1></header>" + content
                + "</main></body></html>";
    }
}
