using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PagesOfListings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pages_ListingId",
                table: "Pages");

            migrationBuilder.CreateIndex(
                name: "IX_Pages_ListingId",
                table: "Pages",
                column: "ListingId",
                unique: true,
                filter: "DeletedAt IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Pages_ListingId",
                table: "Pages");

            migrationBuilder.CreateIndex(
                name: "IX_Pages_ListingId",
                table: "Pages",
                column: "ListingId",
                unique: true);
        }
    }
}
