package rivo.server.catalogue.content;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Duration;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.web.ApiException;

/** The pictures of titles. */
@RestController
@RequestMapping("/api/icons")
class IconsApi {

    record KeptIcon(String id) {
    }

    private final Icons icons;

    IconsApi(Icons icons) {
        this.icons = icons;
    }

    /** The body is the picture: PNG, JPEG or SVG. A title has it once its record names it. */
    @PutMapping
    @ResponseStatus(HttpStatus.CREATED)
    KeptIcon keep(HttpServletRequest request) throws IOException {
        return new KeptIcon(icons.keep(request.getInputStream().readNBytes(Icons.LARGEST + 1)));
    }

    /** Never changes under its id. */
    @GetMapping("/{id}")
    ResponseEntity<Resource> icon(@PathVariable String id) {
        Icons.Icon icon = icons.find(id).orElseThrow(() -> ApiException.notFound("unknown-icon",
                "There is no icon " + id + "; give the title another."));
        return ResponseEntity.ok().contentType(MediaType.parseMediaType(icon.type()))
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .header("X-Content-Type-Options", "nosniff")
                .cacheControl(CacheControl.maxAge(Duration.ofDays(365)).cachePrivate().immutable()).body(new FileSystemResource(icon.file()));
    }
}
