package rivo.server.mirror;

import java.net.URI;
import java.net.URISyntaxException;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.resolve.Resolver;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.mirror.Copies.Copy;
import rivo.server.mirror.Copies.State;
import rivo.server.mirror.Traffic.Total;
import rivo.server.web.ApiException;

/** Mirrors: the list, what is where, and bringing content near. */
@RestController
@RequestMapping("/api/mirrors")
class MirrorsApi {

    /**
     * @param devices how many ask it
     * @param trouble why it did not answer; absent when it did
     * @param lookedAt when it was last asked; absent before the first time
     * @param held how many contents it holds whole
     * @param copying how many are being copied or wait to be
     * @param fetchedBytes how much devices took there
     * @param servedBytes how much it took from the server
     * @param savedBytes how much less had to come from the server
     */
    record MirrorLine(Mirror mirror, int devices, @Nullable String trouble, @Nullable Instant lookedAt, int held, int copying,
            long heldBytes, long fetchedBytes, long servedBytes, long savedBytes) {
    }

    /** @param fetchedBytes how much devices took from the server itself */
    record MirrorsView(List<MirrorLine> mirrors, int contents, long bytes, long fetchedBytes) {
    }

    /**
     * A content on a mirror.
     *
     * @param state unknown, absent, partly, waiting, copying, held or failed
     * @param held how much is there, in bytes
     * @param message why it failed; empty when it did not
     * @param fetches how often devices took it there
     */
    record MirrorContent(String sha256, String fileName, String title, String titleName, String version, long size, String state,
            long held, String message, long fetches, long savedBytes) {
    }

    /** @param sha256 which; all that is missing when absent */
    record CopyWish(@Nullable List<String> sha256) {
    }

    private final Mirrors mirrors;
    private final Copies copies;
    private final Traffic traffic;
    private final Catalogue catalogue;
    private final CurrentSnapshot current;

    MirrorsApi(Mirrors mirrors, Copies copies, Traffic traffic, Catalogue catalogue, CurrentSnapshot current) {
        this.mirrors = mirrors;
        this.copies = copies;
        this.traffic = traffic;
        this.catalogue = catalogue;
        this.current = current;
    }

    @GetMapping
    MirrorsView mirrors() {
        Snapshot now = current.now();
        Map<String, Content> contents = now.get(Titles.PART).contents();
        return new MirrorsView(Mirrors.all(now).stream().map(mirror -> line(now.resolver(), mirror, contents)).toList(), contents.size(),
                contents.values().stream().mapToLong(Content::size).sum(), traffic.of(null).fetchedBytes());
    }

    private MirrorLine line(Resolver resolver, Mirror mirror, Map<String, Content> contents) {
        int held = 0;
        int copying = 0;
        long bytes = 0;
        for (Content content : contents.values()) {
            Copy copy = copies.of(mirror, content);
            held += copy.state() == State.HELD ? 1 : 0;
            copying += copy.state() == State.COPYING || copy.state() == State.WAITING ? 1 : 0;
            bytes += copy.held();
        }
        Total total = traffic.of(mirror.id());
        Copies.Standing standing = copies.standing(mirror);
        return new MirrorLine(mirror, Mirrors.devices(resolver, mirror), standing.trouble(), standing.lookedAt(), held, copying,
                bytes, total.fetchedBytes(), total.servedBytes(), total.saved());
    }

    @GetMapping("/{id}/contents")
    List<MirrorContent> contents(@PathVariable String id) {
        Mirror mirror = mirrors.mirror(id);
        List<MirrorContent> lines = new ArrayList<>();
        for (TitleRecord title : catalogue.now().all()) {
            for (TitleRecord.ReleaseRecord release : title.releases()) {
                release.variants().stream().flatMap(v -> v.contents().stream()).distinct().forEach(content -> {
                    Copy copy = copies.of(mirror, content);
                    Total total = traffic.of(id, content.sha256());
                    lines.add(new MirrorContent(content.sha256(), content.fileName(), title.id(), title.name(), release.version(),
                            content.size(), copy.state().name().toLowerCase(Locale.ROOT), copy.held(), copy.message(),
                            total.fetches(), total.saved()));
                });
            }
        }
        return lines;
    }

    /** Refused with everything that is wrong with it. */
    @PutMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void put(@PathVariable String id, @RequestBody Mirror mirror, Principal who) {
        if (!id.equals(mirror.id())) {
            throw ApiException.conflict("other-id", "The mirror in the body is not the one in the address.");
        }
        mirrors.put(who.getName(), mirror);
        copies.forget(id);
        copies.look(id);
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable String id, Principal who) {
        mirrors.delete(who.getName(), id);
        copies.forget(id);
        traffic.forget(id);
    }

    /** Asks it anew what it holds. */
    @PostMapping("/{id}/look")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void look(@PathVariable String id) {
        copies.look(mirrors.mirror(id).id());
    }

    /** Has it fetch content. */
    @PostMapping("/{id}/copies")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void copy(@PathVariable String id, @RequestBody CopyWish wish) {
        copies.copy(mirrors.mirror(id), catalogue.now().contents().values().stream()
                .filter(c -> wish.sha256() == null || wish.sha256().contains(c.sha256())).toList());
    }

    /** Stops what it is fetching for us; what is there stays. */
    @DeleteMapping("/{id}/copies")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void cancel(@PathVariable String id) {
        copies.cancel(mirrors.mirror(id).id());
    }

    /** Has every mirror fetch the content of a release. */
    @PostMapping("/copies")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void copyEverywhere(@RequestParam String title, @RequestParam String version) {
        List<Content> contents = catalogue.now().record(title).releases().stream().filter(r -> r.version().equals(version))
                .flatMap(r -> r.variants().stream()).flatMap(v -> v.contents().stream()).toList();
        mirrors.all().forEach(mirror -> copies.copy(mirror, contents));
    }

    /**
     * The configuration for nginx.
     *
     * @param server where the mirror reaches this server, such as {@code https://rivo.quillbrook.example}
     */
    @GetMapping("/{id}/nginx")
    ResponseEntity<String> nginx(@PathVariable String id, @RequestParam String server) {
        Mirror mirror = mirrors.mirror(id);
        return ResponseEntity.ok().contentType(MediaType.TEXT_PLAIN)
                .header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("rivo-mirror.conf").build()
                        .toString())
                .header(HttpHeaders.CACHE_CONTROL, "no-store").body(NginxFile.of(mirror, address(server), mirrors.key(id)));
    }

    private static URI address(String server) {
        try {
            URI uri = new URI(server);
            if (("http".equals(uri.getScheme()) || "https".equals(uri.getScheme())) && uri.getHost() != null
                    && uri.getRawUserInfo() == null && uri.getRawQuery() == null && uri.getRawFragment() == null
                    && server.matches("[A-Za-z0-9:/._\\[\\]-]{1,300}")) {
                return uri;
            }
        } catch (URISyntaxException e) {
            // Said below.
        }
        throw ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, "bad-address", "“" + server
                + "” is no address of a server; write where the mirror reaches Rivo, such as https://rivo.quillbrook.example.");
    }
}
