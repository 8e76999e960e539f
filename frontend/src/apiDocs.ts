/** Every address of the API, to read and to try, with nothing loaded from elsewhere. */
import "swagger-ui-dist/swagger-ui.css";
import SwaggerUI from "swagger-ui-dist/swagger-ui-bundle.js";

SwaggerUI({
  url: "/api/openapi.json",
  dom_id: "#docs",
  deepLinking: true,
  requestInterceptor: (request) => {
    request.headers["X-Amber-Spread"] = "1";
    return request;
  },
});
