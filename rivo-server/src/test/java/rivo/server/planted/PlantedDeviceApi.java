package rivo.server.planted;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;

/** A handler that asks nobody who calls: a test shows that it is found. It is no bean, and answers nothing. */
@RequestMapping("/device/v2")
public final class PlantedDeviceApi {

    @GetMapping("/planted")
    public String planted() {
        return "";
    }
}
