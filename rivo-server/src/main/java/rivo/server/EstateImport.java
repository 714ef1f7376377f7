package rivo.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.Replacement;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
import rivo.formats.estate.EstateReader;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.FenceDocument;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitlesOfEstate;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.PresentRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;
import rivo.server.estate.GroupLists;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.people.Administrators;
import rivo.server.request.RequestDocument;

/**
 * Loads an estate file into an empty data folder, for trying Rivo out and for measuring it. Done once, when the server starts and before
 * anything is read.
 */
@Component
class EstateImport {

    private static final Logger LOG = LoggerFactory.getLogger(EstateImport.class);
    private static final String WHO = "import";
    private static final String REASON = "Loaded from an estate file";
    /** As long as the directory's own ids can be. */
    private static final int LONGEST_ID = 64;

    private final JdbcTemplate jdbc;
    private final Instant now;

    EstateImport(ServerSettings settings, JdbcTemplate jdbc, PlatformTransactionManager transactions, Clock clock) {
        this.jdbc = jdbc;
        this.now = clock.instant();
        Path file = settings.estate();
        if (file != null && !isLoadedAlready()) {
            Estate estate = read(file);
            new TransactionTemplate(transactions).executeWithoutResult(status -> load(estate));
        }
    }

    /** @throws IllegalStateException when there is something else in the data folder */
    private boolean isLoadedAlready() {
        JdbcClient db = JdbcClient.create(jdbc);
        if (db.sql("select count(*) from changes where who = ? and reason = ?").params(WHO, REASON).query(Long.class).single() > 0) {
            return true;
        }
        if (db.sql("select (select count(*) from ous) + (select count(*) from titles)").query(Long.class).single() > 0) {
            throw new IllegalStateException("There is something in the data folder already; choose an empty one with --data.");
        }
        return false;
    }

    private static Estate read(Path file) {
        try {
            return EstateReader.read(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e.getMessage(), e);
        }
    }

    private void load(Estate estate) {
        longIds(estate);
        batch("insert into ous (id, dn, name, parent) values (?, ?, ?, ?)", estate.ous().all(),
                ou -> row(ou.id(), ou.dn(), ou.name().isEmpty() ? ou.id() : ou.name(), ou.parent()));
        batch("insert into users (id, dn, account, full_name, mail, department, ou, enabled) values (?, ?, ?, ?, null, ?, ?, true)",
                estate.users().all(), user -> row(user.id(), "", user.name(), user.fullName().isEmpty() ? user.name() : user.fullName(),
                        user.facts().asMap().get("department"), user.ou()));
        batch("insert into users (id, dn, account, full_name, mail, department, ou, enabled) values (?, '', 'administrator', 'Administrator', null, "
                + "null, null, true)", List.of(Administrators.TRIAL), id -> row(id));
        batch("insert into computers (id, dn, name, ou, enabled) values (?, '', ?, ?, true)", estate.devices().all(),
                device -> row(device.id(), device.name(), device.ou()));
        people(estate.devices().all());
        groups(estate);
        titles(estate);
        reports(estate);
        documents(estate);
        LOG.info("Loaded {} devices, {} people, {} titles and {} assignments from the estate file.", estate.devices().size(),
                estate.users().size(), estate.titles().size(), estate.assignments().all().size());
    }

    private static void longIds(Estate estate) {
        List<String> ids = new ArrayList<>(estate.ous().all().stream().map(Ou::id).toList());
        ids.addAll(estate.users().all().stream().map(User::id).toList());
        ids.addAll(estate.devices().all().stream().map(Device::id).toList());
        ids.addAll(estate.groups().keySet());
        ids.stream().filter(id -> id.length() > LONGEST_ID).findFirst().ifPresent(id -> {
            throw new IllegalStateException("The id " + id + " has more than " + LONGEST_ID + " characters; the server takes the ids of OUs, "
                    + "people, devices and groups up to that length. Give it a shorter one.");
        });
    }

    private interface RowOf<T> {
        Object[] of(T one);
    }

    private static Object[] row(@Nullable Object... values) {
        return values;
    }

    private <T> void batch(String sql, List<T> all, RowOf<T> row) {
        int step = 5_000;
        for (int from = 0; from < all.size(); from += step) {
            jdbc.batchUpdate(sql, all.subList(from, Math.min(all.size(), from + step)).stream().map(row::of).toList());
        }
    }

    private void people(List<Device> devices) {
        List<Object[]> rows = new ArrayList<>();
        for (Device device : devices) {
            for (int i = 0; i < device.people().size(); i++) {
                rows.add(row(device.id(), i, device.people().get(i)));
            }
        }
        batch("insert into computer_people (computer, place, person) values (?, ?, ?)", rows, row -> row);
    }

    private void groups(Estate estate) {
        List<Group> groups = List.copyOf(estate.groups().values());
        batch("insert into directory_groups (id, dn, name) values (?, '', ?)", groups, group -> row(group.id(), group.name()));
        groups.forEach(group -> jdbc.batchUpdate(GroupLists.INSERT, GroupLists.rows(group.id(), group.members())));
    }

    private void titles(Estate estate) {
        TitlesOfEstate.write(JdbcClient.create(jdbc), estate.titles().stream().map(EstateImport::record).toList(), WHO, now);
    }

    private static TitleRecord record(Title title) {
        List<TitleRecord.ReleaseRecord> releases = title.releases().stream().map(release -> release(title, release)).toList();
        return new TitleRecord(title.id(), title.name().isEmpty() ? title.id() : title.name(), "", TitleRecord.About.NOTHING, title.scope().word(),
                title.seats(), List.of(), List.copyOf(title.conflictsWith()), releases);
    }

    private static TitleRecord.ReleaseRecord release(Title title, Release release) {
        return new TitleRecord.ReleaseRecord(release.version().toString(), release.isOffered(), "",
                release.needs().stream().map(need -> new NeedRecord(need.title(), need.min() == null ? null : need.min().toString())).toList(),
                release.replaces().stream().map(one -> new ReplacementRecord(one.title(), one.mode() == Replacement.Mode.REMOVE_FIRST)).toList(),
                List.of(), release.variants().stream().map(variant -> variant(title, variant)).toList());
    }

    private static TitleRecord.VariantRecord variant(Title title, Variant variant) {
        return TitlesOfEstate.variant(title.id(), variant.id(), variant.fits());
    }

    private void reports(Estate estate) {
        batch("insert into device_reports (device, facts, software, present) values (?, ?, ?, ?)",
                estate.devices().all(), device -> row(device.id(), Json.write(device.facts().asMap()), Json.write(device.software()),
                        Json.write(device.present().stream().map(PresentRecord::of).toList())));
    }

    private void documents(Estate estate) {
        jdbc.update("insert into changes (number, who, at, reason) values (1, ?, ?, ?)", WHO, Rows.at(now), REASON);
        write(FenceDocument.KIND, estate.ous().all().stream().filter(Ou::fenced).map(ou -> new FenceDocument(ou.id())).toList());
        write(CollectionDocument.KIND, estate.collections().values().stream().map(CollectionDocument::of).toList());
        write(KitDocument.KIND, estate.kits().values().stream().map(kit -> new KitDocument(kit.id(), kit.name(), "", kit.titles())).toList());
        write(RequestDocument.KIND, estate.requests().stream().map(request -> RequestDocument.of(request, now)).toList());
        write(AssignmentDocument.KIND, estate.assignments().all().stream().map(a -> AssignmentDocument.of(a, Delivery.AS_USUAL)).toList());
    }

    private <D extends Document> void write(DocumentKind<D> kind, List<D> documents) {
        batch("insert into documents (kind, id, revision, json, changed_by, changed_at, change_number) values (?, ?, 1, ?, ?, ?, 1)", documents,
                document -> row(kind.word(), document.id(), Json.write(document), WHO, Rows.at(now)));
    }
}
