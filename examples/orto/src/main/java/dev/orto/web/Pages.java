package dev.orto.web;

import dev.orto.garden.Fault;
import dev.orto.garden.Garden;
import dev.orto.garden.Plot;
import dev.orto.garden.Rota;
import dev.orto.garden.SeedLibrary;
import io.javalin.Javalin;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/** The garden's pages. */
final class Pages {

    private final Garden garden;
    private final Set<Fault> faults;

    Pages(Garden garden, Set<Fault> faults) {
        this.garden = garden;
        this.faults = faults;
    }

    void addTo(Javalin app) {
        app.get("/", ctx -> ctx.html(page("Plots", plots())));
        app.get("/rota", ctx -> ctx.html(page("Watering rota", rota())));
        app.get("/seeds", ctx -> ctx.html(page("Seed library", seeds())));
        app.get("/compost", ctx -> ctx.html(page("Compost", compost())));
        app.get("/shed", ctx -> ctx.html(page("Tool shed", shed())));
    }

    private String plots() {
        return garden.plots().stream()
                .map(Pages::plot)
                .collect(Collectors.joining("\n", "<ul class='plots'>", "</ul>" + plan()));
    }

    /** Two rows of beds with a path between them; their sizes are to scale. */
    private String plan() {
        var beds = new StringBuilder();
        String[] colours = {"#7a9e5f", "#a3b86c", "#c4512d", "#8d6e46", "#b8405e", "#4f7a5b"};
        int at = 0;
        for (Plot plot : garden.plots()) {
            boolean onThePath = plot.number() == 7 && faults.contains(Fault.PLAN_DRAWN_WRONG);
            beds.append(String.format(
                    Locale.ROOT,
                    "<rect x='%d' y='%d' width='%d' height='50' fill='%s'/>",
                    10 + at % 3 * 130,
                    onThePath ? 48 : 10 + at / 3 * 80,
                    Math.round(plot.squareMetres() * 5) + 20,
                    colours[at]));
            at++;
        }
        return "<svg id='plan' width='400' height='150' style='background:#ece4d0'>" + beds + "</svg>";
    }

    private static String plot(Plot plot) {
        return """
                <li class='plot' data-plot='%d'>
                  <b class='number'>%d</b>
                  <span class='crop'>%s</span>
                  <span class='keeper'>kept by %s</span>
                  <small>%.1f m²</small>
                </li>""".formatted(plot.number(), plot.number(), text(plot.crop()), text(plot.keeper()), plot.squareMetres());
    }

    private String rota() {
        String rows = garden.rota().days().entrySet().stream()
                .map(day -> "<tr data-day='%s'><th>%s</th><td class='neighbour'>%s</td></tr>"
                        .formatted(text(day.getKey()), text(day.getKey()), text(day.getValue())))
                .collect(Collectors.joining("\n"));
        return """
                <table class='rota'><thead><tr><th>Day</th><th>Waters</th></tr></thead><tbody>%s</tbody></table>
                <form id='swap'>
                  <h2>Swap two days</h2>
                  <label>Day <select name='first'>%s</select></label>
                  <label>with <select name='second'>%s</select></label>
                  <button>Swap</button>
                  <p class='message' role='status'></p>
                </form>""".formatted(rows, options(Rota.DAYS), options(Rota.DAYS));
    }

    private String seeds() {
        String id = faults.contains(Fault.LEND_BUTTON_RENAMED) ? "borrow-now" : "lend";
        String rows = garden.seeds().all().stream().map(Pages::seed).collect(Collectors.joining("\n"));
        String names = options(
                garden.seeds().all().stream().map(SeedLibrary.Stock::seed).toList());
        return """
                <table class='seeds'><thead><tr><th>Seed</th><th>Sachets</th><th>Lent to</th></tr></thead>
                <tbody>%s</tbody></table>
                <form id='loan'>
                  <h2>Borrow seeds</h2>
                  <label>Seed <select name='seed'>%s</select></label>
                  <label>Neighbour's name <input name='neighbour' autocomplete='off'></label>
                  <button id='%s'>Borrow</button>
                  <p class='message' role='status'></p>
                </form>""".formatted(rows, names, id);
    }

    private static String seed(SeedLibrary.Stock stock) {
        return "<tr data-seed='%s'><th>%s</th><td class='sachets'>%d</td><td class='lent'>%s</td></tr>"
                .formatted(
                        text(stock.seed()),
                        text(stock.seed()),
                        stock.sachets(),
                        text(String.join(", ", stock.lentTo())));
    }

    private String compost() {
        return """
                <p class='state'>The heap is <b id='heap'>%s</b>.</p>
                <svg class='chart' viewBox='0 0 400 100'></svg>""".formatted(garden.compost().isHot() ? "hot" : "cold");
    }

    private String shed() {
        String holder = garden.shed().keyHolder();
        String script = faults.contains(Fault.SHED_SCRIPT_BROKEN) ? "takeTheKey" : "takeKey";
        return """
                <p class='state'>The key %s.</p>
                <form id='key' data-script='%s'>
                  <h2>Take the key</h2>
                  <label>Neighbour's name <input name='neighbour' autocomplete='off'></label>
                  <label>Code of the box <input name='code' type='password'></label>
                  <button>Take</button>
                  <p class='message' role='status'></p>
                </form>""".formatted(holder == null ? "hangs on its hook" : "is with " + text(holder), script);
    }

    private static String options(List<String> names) {
        return names.stream().map(name -> "<option>" + text(name) + "</option>").collect(Collectors.joining());
    }

    private static String page(String title, String body) {
        return """
                <!doctype html>
                <html lang='en'>
                <head><meta charset='utf-8'><title>%s · Orto</title>
                <meta name='viewport' content='width=device-width'>
                <link rel='icon' href='data:,'><link rel='stylesheet' href='/orto.css'><script src='/orto.js' defer></script></head>
                <body>
                <header><a class='name' href='/'>Orto</a>
                <nav><a href='/'>Plots</a><a href='/rota'>Rota</a><a href='/seeds'>Seeds</a>
                <a href='/compost'>Compost</a><a href='/shed'>Shed</a></nav></header>
                <main><h1>%s</h1>
                %s
                </main></body></html>""".formatted(title, title, body);
    }

    private static String text(String value) {
        return value.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace("'", "&#39;")
                .replace("\"", "&quot;");
    }
}
