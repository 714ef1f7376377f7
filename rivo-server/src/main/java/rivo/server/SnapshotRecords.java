package rivo.server;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.FenceDocument;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.catalogue.trust.ContentSignatures;
import rivo.server.catalogue.trust.Roots;
import rivo.server.change.Drafts;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.estate.SnapshotReader;
import rivo.server.fleet.DeviceParts;
import rivo.server.mirror.Mirrors;
import rivo.server.notice.Notices;
import rivo.server.notice.QuietHoursDocument;
import rivo.server.request.RequestDocument;
import rivo.server.window.WindowDocument;

/** Puts the snapshot together when the server starts: every part as its feature reads it, and the estate of all that is known of it. */
@Component
public class SnapshotRecords implements SnapshotReader {

    /** Every part there is. */
    public static final List<SnapshotPart<?>> PARTS = List.of(AssignmentDocument.KIND, CollectionDocument.KIND, FenceDocument.KIND,
            KitDocument.KIND, WindowDocument.KIND, QuietHoursDocument.KIND, RequestDocument.KIND, Titles.PART, FixedChoices.PART, Licences.PART, Mirrors.PART, Drafts.PART,
            DeviceParts.ENROLMENTS, SignIns.PART, Notices.OPEN, DeviceParts.JOBS, DeviceParts.LAST_NUMBERS,
            Roots.PART, ContentSignatures.PART);

    private final JdbcClient db;
    private final DataSource database;

    /** @param loaded has put into the records what they begin with */
    SnapshotRecords(JdbcClient db, DataSource database, EstateImport loaded) {
        this.db = db;
        this.database = database;
    }

    @Override
    public Snapshot read(Instant asOf) {
        Map<SnapshotPart<?>, Object> parts = new LinkedHashMap<>();
        for (SnapshotPart<?> part : PARTS) {
            parts.put(part, part.read(db));
        }
        return Snapshot.of(estate(asOf, new Parts(parts)), parts);
    }

    private record Parts(Map<SnapshotPart<?>, Object> read) {
        @SuppressWarnings("unchecked")
        <T> T get(SnapshotPart<T> part) {
            return (T) Objects.requireNonNull(read.get(part));
        }
    }

    private Estate estate(Instant asOf, Parts parts) {
        Set<String> fenced = parts.get(FenceDocument.KIND).stream().map(FenceDocument::id).collect(Collectors.toSet());
        EstateParts directory = EstateRecords.directory(database, asOf, fenced::contains);
        Estate estate = Estate.of(directory.withTitles(parts.get(Titles.PART).all().stream().map(TitleRecord::title).toList())
                .withKits(parts.get(KitDocument.KIND).stream().map(KitDocument::kit).toList())
                .withCollections(parts.get(CollectionDocument.KIND).stream().map(CollectionDocument::collection).toList())
                .withAssignments(parts.get(AssignmentDocument.KIND).stream().map(AssignmentDocument::assignment).toList()));
        return RequestDocument.requested(estate, parts.get(RequestDocument.KIND));
    }
}
