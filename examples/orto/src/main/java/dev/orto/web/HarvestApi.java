package dev.orto.web;

import com.fasterxml.jackson.databind.JsonNode;
import dev.orto.garden.Fault;
import dev.orto.garden.GardenException;
import dev.orto.garden.Harvest;
import io.javalin.Javalin;
import io.javalin.http.Context;
import io.javalin.http.UploadedFile;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;

/** The harvest, as JSON. Whoever writes something down shows the token of the scale. */
final class HarvestApi {

    private static final String TOKEN = "scale-4711-turnip";

    private final Harvest harvest;
    private final OrtoLog log;
    private final Set<Fault> faults;

    HarvestApi(Harvest harvest, Set<Fault> faults, OrtoLog log) {
        this.log = log;
        this.harvest = harvest;
        this.faults = faults;
    }

    void addTo(Javalin app) {
        app.get("/api/harvest/totals/{crop}", ctx -> {
            String crop = ctx.pathParam("crop");
            ctx.json(Map.of("crop", crop, "kilograms", harvest.total(crop)));
        });
        app.get("/api/harvest/years/{year}", ctx -> ctx.json(harvest.year(Integer.parseInt(ctx.pathParam("year")))));
        app.get("/api/harvest/scale", ctx -> {
            if (harvest.scaleIsAwake()) ctx.json(Map.of("scale", "ready"));
            else ctx.status(503).header("Retry-After", "0").json(Map.of("error", "The scale is waking up"));
        });
        app.post("/api/harvest", this::weigh);
        app.post("/api/harvest/photos", this::photo);
        app.exception(ArithmeticException.class, (broken, ctx) -> {
            log.error(ctx, broken);
            Map<String, Object> error = new LinkedHashMap<>();
            error.put("error", "The harvest could not be reckoned");
            error.put("because", broken.getMessage());
            error.put("in", "kilograms a day of rain");
            error.put("ask", Map.of("who", "Dario", "about", "the rain gauge of that year"));
            ctx.status(500).json(error);
        });
    }

    private void weigh(Context ctx) {
        mustShowToken(ctx);
        JsonNode body = ctx.bodyAsClass(JsonNode.class);
        var weighing = new Harvest.Weighing(
                body.path("crop").asText(),
                body.path("neighbour").asText(),
                body.path("kilograms").asDouble());
        harvest.add(weighing);
        ctx.status(faults.contains(Fault.WEIGHING_STATUS_CHANGED) ? 200 : 201).json(weighing);
    }

    private void photo(Context ctx) {
        mustShowToken(ctx);
        UploadedFile photo = ctx.uploadedFile("photo");
        if (photo == null) throw GardenException.invalid("There is no photo");
        ctx.status(201)
                .json(Map.of(
                        "name", photo.filename(), "bytes", photo.size(), "of", String.valueOf(ctx.formParam("crop"))));
    }

    private static void mustShowToken(Context ctx) {
        if (!TOKEN.equals(ctx.header("X-Scale-Token"))) throw GardenException.forbidden("The scale's token is missing");
    }
}
