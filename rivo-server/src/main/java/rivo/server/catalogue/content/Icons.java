package rivo.server.catalogue.content;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.Optional;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;
import rivo.server.storage.PrivateFiles;
import rivo.server.web.ApiException;

/**
 * Pictures of titles, kept once by their content in a folder beside the database. PNG and JPEG are drawn anew, SVG is
 * cleaned, so that nothing but a picture is ever served. Safe for any number of threads.
 */
@Component
class Icons {

    /** The largest picture that is taken, in bytes. */
    static final int LARGEST = 512 << 10;
    private static final int SIDE = 128;
    private static final int MOST_PIXELS_A_SIDE = 4096;
    private static final Pattern ID = Pattern.compile("[0-9a-f]{64}\\.(png|svg)");

    /** @param type of the content, for HTTP */
    record Icon(Path file, String type) {
    }

    private final Path folder;

    Icons(ServerSettings settings) throws IOException {
        this.folder = PrivateFiles.folder(settings.data().resolve("icons"));
    }

    /**
     * Keeps a picture.
     *
     * @return its id
     * @throws ApiException when it is too large, or no picture
     */
    String keep(byte[] bytes) throws IOException {
        if (bytes.length > LARGEST) {
            throw refused("It has more than " + (LARGEST >> 10) + " KiB; make it smaller.");
        }
        boolean isSvg = new String(bytes, 0, Math.min(bytes.length, 1024), StandardCharsets.UTF_8).contains("<svg");
        byte[] clean = isSvg ? svg(bytes) : redrawn(bytes);
        String id = HexFormat.of().formatHex(Contents.sha256().digest(clean)) + (isSvg ? ".svg" : ".png");
        Path part = Files.createTempFile(folder, "icon", ".part");
        Files.write(part, clean);
        Files.move(part, folder.resolve(id), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        return id;
    }

    Optional<Icon> find(String id) {
        Path file = folder.resolve(ID.matcher(id).matches() ? id : "none");
        return Files.isRegularFile(file) ? Optional.of(new Icon(file, id.endsWith(".svg") ? "image/svg+xml"
                : "image/png")) : Optional.empty();
    }

    private static byte[] svg(byte[] bytes) {
        return SvgCleaner.clean(bytes).orElseThrow(() -> refused("It is no SVG that can be read; save it as plain SVG."));
    }

    /** At most 128 pixels a side. The size is looked at before anything is unpacked. */
    private static byte[] redrawn(byte[] bytes) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw refused("It is no PNG, JPEG or SVG; save it as one of these.");
            }
            ImageReader reader = readers.next();
            reader.setInput(in, true, true);
            if (reader.getWidth(0) > MOST_PIXELS_A_SIDE || reader.getHeight(0) > MOST_PIXELS_A_SIDE) {
                throw refused("It has more than " + MOST_PIXELS_A_SIDE + " pixels a side; make it smaller.");
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(scaled(reader.read(0)), "png", out);
            return out.toByteArray();
        } catch (IOException | RuntimeException e) {
            if (e instanceof ApiException said) {
                throw said;
            }
            throw refused("The picture is damaged; save it again.");
        }
    }

    private static BufferedImage scaled(BufferedImage picture) {
        double by = Math.min(1, (double) SIDE / Math.max(picture.getWidth(), picture.getHeight()));
        int width = Math.max(1, (int) Math.round(picture.getWidth() * by));
        int height = Math.max(1, (int) Math.round(picture.getHeight() * by));
        BufferedImage small = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        Graphics2D graphics = small.createGraphics();
        graphics.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        graphics.drawImage(picture, 0, 0, width, height, null);
        graphics.dispose();
        return small;
    }

    private static ApiException refused(String sentence) {
        return ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, "no-picture", sentence);
    }
}
