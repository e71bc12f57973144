package dev.orto.web;

import com.fasterxml.jackson.databind.JsonNode;
import dev.orto.garden.Compost;
import dev.orto.garden.Fault;
import dev.orto.garden.Garden;
import dev.orto.garden.GardenException;
import dev.orto.garden.Plot;
import dev.orto.garden.Shed;
import dev.orto.garden.Weather;
import io.javalin.Javalin;
import io.javalin.http.Context;
import io.javalin.http.staticfiles.Location;
import java.net.URI;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;

/** The garden's web application, on a free port of the loopback address, with all it knows in memory. */
public final class Orto implements AutoCloseable {

    private final Garden garden;
    private final Weather weather;
    private final boolean areaAsText;
    private final Javalin server;
    private final OrtoLog log = OrtoLog.create();

    private Orto(Set<Fault> faults) {
        garden = new Garden(faults);
        areaAsText = faults.contains(Fault.PLOT_AREA_AS_TEXT);
        weather = new Weather(faults.contains(Fault.WEATHER_COLD_CACHE));
        var pages = new Pages(garden, faults);
        server = Javalin.create(config -> {
            config.showJavalinBanner = false;
            config.staticFiles.add("/orto/public", Location.CLASSPATH);
        });
        pages.addTo(server);
        addApiTo(server);
        new HarvestApi(garden.harvest(), faults, log).addTo(server);
        server.exception(
                GardenException.class,
                (no, ctx) -> ctx.status(no.status()).json(Map.of("error", String.valueOf(no.getMessage()))));
    }

    public static Orto start(Set<Fault> faults) {
        var orto = new Orto(faults);
        orto.server.start("127.0.0.1", 0);
        return orto;
    }

    public URI address() {
        return URI.create("http://127.0.0.1:" + server.port());
    }

    /** What the application writes for whoever runs it. */
    public Path log() {
        return log.file();
    }

    @Override
    public void close() {
        server.stop();
        log.delete();
    }

    private void addApiTo(Javalin app) {
        app.get("/api/plots", ctx -> ctx.json(garden.plots()));
        app.get("/api/plots/{number}", ctx -> ctx.json(shown(garden.plot(number(ctx)))));

        app.get("/api/rota", ctx -> ctx.json(garden.rota().days()));
        app.post("/api/rota/swaps", ctx -> {
            garden.rota().swap(field(ctx, "first"), field(ctx, "second"));
            ctx.json(garden.rota().days());
        });

        app.get("/api/seeds", ctx -> ctx.json(garden.seeds().all()));
        app.get("/api/seeds/{seed}", ctx -> ctx.json(garden.seeds().stock(ctx.pathParam("seed"))));
        app.post(
                "/api/seeds/{seed}/loans",
                ctx -> ctx.status(201).json(garden.seeds().lend(ctx.pathParam("seed"), field(ctx, "neighbour"))));
        app.delete(
                "/api/seeds/{seed}/loans/{neighbour}",
                ctx -> ctx.json(garden.seeds().bringBack(ctx.pathParam("seed"), ctx.pathParam("neighbour"))));

        app.get("/api/weather", ctx -> ctx.json(weather.now()));

        app.get("/api/compost", ctx -> ctx.json(garden.compost().history()));
        app.get(
                "/api/compost/state",
                ctx -> ctx.json(Map.of("hot", garden.compost().isHot())));
        app.post("/api/compost", ctx -> {
            JsonNode body = ctx.bodyAsClass(JsonNode.class);
            var reading = new Compost.Reading(
                    body.path("day").asInt(), body.path("celsius").asDouble());
            garden.compost().add(reading);
            ctx.status(201).json(reading);
        });

        app.post("/api/shed/key", ctx -> {
            JsonNode code = ctx.bodyAsClass(JsonNode.class).get("code"); // who is in the shed needs none
            if (code != null) Shed.mustOpen(code.asText());
            garden.shed().takeKey(field(ctx, "neighbour"));
            ctx.status(201).json(Map.of("holder", String.valueOf(garden.shed().keyHolder())));
        });
        app.delete("/api/shed/key", ctx -> garden.shed().returnKey());
        app.get(
                "/api/shed/key",
                ctx -> ctx.json(Map.of("holder", String.valueOf(garden.shed().keyHolder()))));
    }

    private Object shown(Plot plot) {
        if (!areaAsText) return plot;
        return Map.of(
                "number",
                plot.number(),
                "keeper",
                plot.keeper(),
                "crop",
                plot.crop(),
                "squareMetres",
                plot.squareMetres() + " m²");
    }

    private static int number(Context ctx) {
        try {
            return Integer.parseInt(ctx.pathParam("number"));
        } catch (NumberFormatException notANumber) {
            throw GardenException.invalid("A plot has a number, not '" + ctx.pathParam("number") + "'");
        }
    }

    private static String field(Context ctx, String name) {
        JsonNode value = ctx.bodyAsClass(JsonNode.class).get(name);
        if (value == null) throw GardenException.invalid("The field '" + name + "' is missing");
        return value.asText();
    }
}
