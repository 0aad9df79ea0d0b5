using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace TinRabbit.Server.Undo;

/// <summary>The changes that can be undone, as tables.</summary>
internal sealed class ChangeEntities : IEntities
{
    public void Configure(ModelBuilder model) =>
        model.Entity<ChangeRow>(change =>
        {
            change.ToTable("Changes");
            change.HasIndex(c => c.ProductId);
            change.HasIndex(c => c.ListingId);
            change.Property(c => c.Screen).HasConversion<string>();
            change
                .Property(c => c.Steps)
                .HasConversion(
                    new ValueConverter<IReadOnlyList<IUndoStep>, string>(s => StepFormat.Write(s), s => StepFormat.Read(s)),
                    // Steps are replaced, never changed.
                    new ValueComparer<IReadOnlyList<IUndoStep>>((a, b) => ReferenceEquals(a, b), s => s.Count, s => s)
                );
        });
}
