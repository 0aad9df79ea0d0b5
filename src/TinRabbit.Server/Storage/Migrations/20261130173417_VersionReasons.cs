using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class VersionReasons : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            // The reason of a version was a sentence; now it is one of the names of VersionReason.
            migrationBuilder.Sql(
                """
                UPDATE "Versions" SET "Why" = CASE "Why"
                    WHEN 'after a pause' THEN 'Pause'
                    WHEN 'by hand' THEN 'ByHand'
                    WHEN 'when it was sent' THEN 'Sent'
                    WHEN 'when it was published' THEN 'Published'
                    WHEN 'before a change to several listings' THEN 'BulkEdit'
                    WHEN 'before links were removed' THEN 'LinksRemoved'
                    WHEN 'before an import' THEN 'Import'
                    WHEN 'before an undo' THEN 'Undo'
                    WHEN 'before another window’s text was replaced' THEN 'OtherWindow'
                    WHEN 'before text was brought over' THEN 'BroughtOver'
                    WHEN 'before moves' THEN 'Moves'
                    WHEN 'before an attribute was filled' THEN 'Attribute'
                    WHEN 'before a move' THEN 'Move'
                    WHEN 'before the derived text was used' THEN 'DerivedText'
                    WHEN 'before a word was inserted' THEN 'Word'
                    WHEN 'before a fill' THEN 'Fill'
                    WHEN 'before a version was restored' THEN 'Restore'
                    WHEN 'before another title' THEN 'Title'
                    WHEN 'before a fix' THEN 'Fix'
                    ELSE 'Other'
                END
                """
            );

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
        }
    }
}
