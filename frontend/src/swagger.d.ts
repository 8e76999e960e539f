declare module "swagger-ui-dist/swagger-ui-bundle.js" {
  interface Asked {
    headers: Record<string, string>;
  }
  /** Draws a description of an API into an element of the page. */
  export default function SwaggerUI(options: {
    url: string;
    dom_id: string;
    deepLinking?: boolean;
    requestInterceptor?: (request: Asked) => Asked;
  }): unknown;
}
