using Microsoft.AspNetCore.Mvc;

namespace TinRabbit.Server.Requests;

/// <summary>Endpoints that take a file as their body.</summary>
internal static class FileUpload
{
    /// <summary>Lets a file be as large as an import may be: the server's bound of other requests would break the connection.</summary>
    public static RouteHandlerBuilder TakesFile(this RouteHandlerBuilder endpoint) =>
        endpoint.Accepts<byte[]>("application/octet-stream").WithMetadata(new RequestSizeLimitAttribute(Bounds.ImportBytes + 1));
}
