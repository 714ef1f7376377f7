package rivo.server.catalogue.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.server.ServerSettings;
import rivo.server.web.ApiException;

class IconsTest {

    private static final String START = "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' "
            + "viewBox='0 0 8 8'><path d='M0 0h8v8z' fill='#0d5f6b'/>";

    @TempDir
    private Path data;
    private Icons icons;

    @BeforeEach
    void make() throws IOException {
        icons = new Icons(ServerSettings.at(data));
    }

    private static byte[] picture(int width, int height, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), format, out);
        return out.toByteArray();
    }

    private String cleaned(String svg) throws IOException {
        return Files.readString(icons.find(icons.keep(svg.getBytes(StandardCharsets.UTF_8))).orElseThrow().file());
    }

    @ParameterizedTest
    @ValueSource(strings = {"png", "jpg"})
    void aPictureIsDrawnAnewAndSmaller(String format) throws IOException {
        Icons.Icon icon = icons.find(icons.keep(picture(300, 150, format))).orElseThrow();
        BufferedImage drawn = ImageIO.read(new ByteArrayInputStream(Files.readAllBytes(icon.file())));
        assertThat(drawn.getWidth()).isEqualTo(128);
        assertThat(drawn.getHeight()).isEqualTo(64);
        assertThat(icon.type()).isEqualTo("image/png");
    }

    @Test
    void whatIsHiddenBehindAPictureIsGone() throws IOException {
        byte[] png = picture(10, 10, "png");
        byte[] more = Arrays.copyOf(png, png.length + 7);
        System.arraycopy("<script".getBytes(StandardCharsets.UTF_8), 0, more, png.length, 7);
        assertThat(new String(Files.readAllBytes(icons.find(icons.keep(more)).orElseThrow().file()), StandardCharsets.ISO_8859_1))
                .doesNotContain("<script");
    }

    @ParameterizedTest
    @ValueSource(strings = {"<script>alert(1)</script>", "<foreignObject><b xmlns='http://www.w3.org/1999/xhtml'/></foreignObject>",
        "<a xlink:href='javascript:alert(1)'><path d='M0 0'/></a>", "<image href='https://elsewhere.example/x.png'/>",
        "<path d='M0 0' onclick='alert(1)'/>", "<path d='M0 0' fill='url(https://elsewhere.example/x)'/>",
        "<style>@import 'https://elsewhere.example/x'</style>", "<use xlink:href='#a'/>", "<animate attributeName='x'/>"})
    void whatRunsLinksOrFetchesIsLeftOutOfAnSvg(String bad) throws IOException {
        String clean = cleaned(START + bad + "</svg>");
        assertThat(clean).contains("M0 0h8v8z").doesNotContain("alert").doesNotContain("elsewhere").doesNotContain("onclick")
                .doesNotContain("foreignObject").doesNotContain("use ").doesNotContain("animate");
    }

    @Test
    void aGradientOfItsOwnStays() throws IOException {
        assertThat(cleaned(START + "<defs><linearGradient id='g'><stop offset='0' stop-color='red'/></linearGradient></defs>"
                + "<rect width='8' height='8' fill='url(#g)'/></svg>")).contains("url(#g)").contains("stop-color");
    }

    @Test
    void whatIsNoPictureIsRefused() throws IOException {
        assertThatThrownBy(() -> icons.keep("hello".getBytes(StandardCharsets.UTF_8))).isInstanceOf(ApiException.class)
                .hasMessage("It is no PNG, JPEG or SVG; save it as one of these.");
        assertThatThrownBy(() -> icons.keep(new byte[Icons.LARGEST + 1])).isInstanceOf(ApiException.class);
        byte[] cut = Arrays.copyOf(picture(50, 50, "png"), 40);
        assertThatThrownBy(() -> icons.keep(cut)).isInstanceOf(ApiException.class);
        assertThatThrownBy(() -> icons.keep(("<!DOCTYPE svg [<!ENTITY a SYSTEM 'file:///etc/passwd'>]>" + START + "</svg>")
                .getBytes(StandardCharsets.UTF_8))).isInstanceOf(ApiException.class);
    }

    @Test
    void aPictureThatWouldFillTheMemoryIsRefusedUnread() throws IOException {
        byte[] png = picture(5000, 2, "png");
        assertThatThrownBy(() -> icons.keep(png)).isInstanceOf(ApiException.class).hasMessageContaining("pixels a side");
    }

    @Test
    void aPathIsNoIcon() {
        assertThat(icons.find("../rivo.mv.db")).isEmpty();
    }
}
