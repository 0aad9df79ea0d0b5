using Microsoft.EntityFrameworkCore.Design;

namespace TinRabbit.Server.Storage;

/// <summary>Lets the migrations tool make a context without starting the server.</summary>
internal sealed class TinContextFactory : IDesignTimeDbContextFactory<TinContext>
{
    public TinContext CreateDbContext(string[] args) =>
        new(
            new DbContextOptionsBuilder<TinContext>()
                .UseSqlite(TinContext.Connection(Path.Combine(Path.GetTempPath(), "tinrabbit.db")))
                .Options
        );
}
