package dev.verbale.contract;

import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.URL;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A contract of several files as one document: what stands in files beside it, or in folders below, is put into it under
 * {@code x-files}, and the references lead there. Nothing outside its folder is read, and nothing from elsewhere.
 */
final class ContractFiles {

    static final String FILES = "x-files";

    private static final int MAX_FILES = 500;

    private final URI folder;
    private final Map<String, JsonNode> read = new LinkedHashMap<>();

    /** What parts of the document call themselves: a reference to one leads into no file. */
    private final Set<String> ids = new HashSet<>();

    private ContractFiles(URI folder) {
        this.folder = folder;
    }

    /**
     * The document at {@code address}, with all that it refers to.
     *
     * @throws IOException where a file cannot be read, or lies outside; the message says which one, and who refers to it
     */
    static JsonNode read(URL address) throws IOException {
        JsonNode document = ContractFile.read(address);
        if (!(document instanceof ObjectNode whole)) return document;
        URI file = uri(address);
        if (file.isOpaque()) return document; // in a jar there is nothing beside it that could be told from outside
        var files = new ContractFiles(file.resolve("."));
        for (JsonNode id : whole.findValues("$id"))
            files.ids.add(id.asString("").replaceFirst(".*/", ""));
        files.follow(whole, file, "", "");
        if (!files.read.isEmpty()) files.read.forEach(whole.withObject("/" + FILES)::set);
        return whole;
    }

    private static URI uri(URL address) throws IOException {
        try {
            return address.toURI();
        } catch (URISyntaxException odd) {
            throw new IOException(address + " is no address of a file", odd);
        }
    }

    /** @param own the pointer of the file that {@code node} is in; empty for the document itself */
    private void follow(JsonNode node, URI file, String own, String at) throws IOException {
        if (node instanceof ObjectNode object && object.path("$ref").isString())
            object.put("$ref", target(object.path("$ref").asString(), file, own, at));
        for (Map.Entry<String, JsonNode> one : node.properties())
            follow(one.getValue(), file, own, at + "/" + OpenApiPaths.escaped(one.getKey()));
        if (node.isArray()) for (int i = 0; i < node.size(); i++) follow(node.get(i), file, own, at + "/" + i);
    }

    private String target(String reference, URI file, String own, String at) throws IOException {
        int hash = reference.indexOf('#');
        String name = hash < 0 ? reference : reference.substring(0, hash);
        String fragment = hash < 0 ? "" : reference.substring(hash + 1);
        if (name.isEmpty()) return own.isEmpty() ? reference : "#" + own + fragment;
        if (ids.contains(name.replaceFirst(".*/", ""))) return reference;
        if (name.matches("[A-Za-z][A-Za-z0-9+.-]*:.*")) return reference; // whoever reads it says what is wrong with it
        URI other;
        try {
            other = file.resolve(new URI(name)).normalize();
        } catch (URISyntaxException odd) {
            throw new IOException(at + " refers to " + reference + ", which is no address", odd);
        }
        String below = folder.relativize(other).toString();
        if (below.startsWith("/") || below.startsWith("..") || below.contains(":"))
            throw new IOException(
                    at + " refers to " + reference + ", which lies outside of its folder and is not read");
        String pointer = "/" + FILES + "/" + OpenApiPaths.escaped(below);
        if (!read.containsKey(below)) {
            if (read.size() == MAX_FILES) throw new IOException(at + " refers to more than " + MAX_FILES + " files");
            JsonNode there = there(reference, other, at);
            read.put(below, there);
            follow(there, other, pointer, pointer);
        }
        return "#" + pointer + fragment;
    }

    private static JsonNode there(String reference, URI file, String at) throws IOException {
        try {
            return ContractFile.read(file.toURL());
        } catch (IOException none) {
            throw new IOException(
                    at + " refers to " + reference + ", which cannot be read: " + none.getMessage(), none);
        }
    }
}
