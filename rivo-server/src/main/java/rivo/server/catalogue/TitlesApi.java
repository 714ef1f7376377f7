package rivo.server.catalogue;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Release;
import rivo.core.estate.Title;

/** The titles, as the pickers need them. */
@RestController
class TitlesApi {

    /** @param newest the version that {@code newest} would take; null when nothing is offered */
    record TitleLine(String id, String name, String maker, @Nullable String newest) {
    }

    private final Catalogue catalogue;

    TitlesApi(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    @GetMapping("/api/titles")
    List<TitleLine> titles() {
        return catalogue.titles().stream().map(record -> {
            Title title = record.title();
            Release newest = title.newest();
            return new TitleLine(record.id(), record.name(), record.maker(),
                    newest == null ? null : newest.version().toString());
        }).toList();
    }
}
