package rivo.server.catalogue.proposal;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.file.Path;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
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
import rivo.formats.installer.InstallerFile;
import rivo.formats.installer.InstallerFormat;
import rivo.formats.installer.InstallerReader;
import rivo.formats.installer.UnreadableInstallerException;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.content.Uploads;
import rivo.server.catalogue.content.Uploads.Upload;
import rivo.server.catalogue.proposal.Proposals.Proposal;
import rivo.server.catalogue.trust.ContentSignatures;
import rivo.server.catalogue.trust.Roots;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.web.ApiException;

/** Dropping a file in: begin, send the parts, and have it read. */
@RestController
@RequestMapping("/api/uploads")
class UploadsApi {

    record Begin(@Nullable String fileName, long size) {
    }

    /** @param partSize the most bytes that one part may have */
    record UploadView(String id, String fileName, long size, long received, long partSize) {
        static UploadView of(Upload upload) {
            return new UploadView(upload.id(), upload.fileName(), upload.size(), upload.received(), Uploads.LARGEST_PART);
        }
    }

    private final Uploads uploads;
    private final Contents contents;
    private final Proposals proposals;
    private final TitleFiles titleFiles;
    private final Readings readings;
    private final ContentSignatures signatures;
    private final CurrentSnapshot current;

    UploadsApi(Uploads uploads, Contents contents, Proposals proposals, TitleFiles titleFiles, Readings readings, ContentSignatures signatures, CurrentSnapshot current) {
        this.signatures = signatures;
        this.current = current;
        this.readings = readings;
        this.uploads = uploads;
        this.contents = contents;
        this.proposals = proposals;
        this.titleFiles = titleFiles;
    }

    @GetMapping
    List<UploadView> open(Principal who) {
        return uploads.of(who.getName()).stream().map(UploadView::of).toList();
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    UploadView begin(@RequestBody Begin file, Principal who) {
        return UploadView.of(uploads.begin(who.getName(), file.fileName(), file.size()));
    }

    @GetMapping("/{id}")
    UploadView get(@PathVariable String id, Principal who) {
        return UploadView.of(uploads.get(id, who.getName()));
    }

    /** The body is the bytes from the offset on. */
    @PutMapping("/{id}/part")
    UploadView append(@PathVariable String id, @RequestParam long offset, HttpServletRequest request, Principal who)
            throws IOException {
        return UploadView.of(uploads.append(id, who.getName(), offset, request.getInputStream()));
    }

    /** Reads the whole file, keeps it as content, and says what it would become. The catalogue is not changed. */
    @PostMapping("/{id}/reading")
    Proposal read(@PathVariable String id, @RequestParam(required = false) @Nullable String title, Principal who)
            throws Exception {
        uploads.get(id, who.getName());
        return readings.read(id, () -> read(uploads.get(id, who.getName()), title));
    }

    private Proposal read(Upload upload, @Nullable String title) throws IOException {
        Path whole = uploads.whole(upload.id(), upload.who());
        try {
            InstallerFile file = InstallerReader.read(whole, upload.fileName(), Roots.keys(current.now()));
            if (file.format() == InstallerFormat.ZIP && TitleFiles.isOne(whole)) {
                return imported(upload, whole);
            }
            Contents.Content content = contents.take(whole, upload.fileName());
            InstallerFile signed = file.inside() == null ? file : file.inside().file();
            signatures.keep(content.sha256(), signed.signature());
            uploads.delete(upload.id());
            return proposals.propose(file, content, title);
        } catch (UnreadableInstallerException e) {
            uploads.delete(upload.id());
            throw ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, e.code(), String.valueOf(e.getMessage()));
        }
    }

    private Proposal imported(Upload upload, Path whole) throws IOException {
        try {
            return titleFiles.read(whole, new Contents.Content("", upload.size(), upload.fileName()), uploads.room());
        } finally {
            uploads.delete(upload.id());
        }
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void cancel(@PathVariable String id, Principal who) {
        uploads.get(id, who.getName());
        readings.checkIdle(id);
        uploads.forget(id, who.getName());
    }
}
