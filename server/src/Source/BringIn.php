<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Server\Account\User;
use Plinth\Server\Change\Change;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FitKeeper;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/** Takes a picture file into a project: source, page and one plan drawing, as one change. */
final readonly class BringIn
{
    public const MOST_BYTES = 200_000_000;
    public const MOST_PIXELS = 250_000_000;

    public function __construct(private Recorder $recorder, private FileStore $files, private PictureTool $tool)
    {
    }

    /** @throws Refusal in words for whoever chose the file */
    public function take(Uuid $project, User $user, string $path, string $name, Uuid $changeId, Uuid $storey): Change
    {
        $mediaType = self::mediaType($path);
        try {
            $picture = $this->tool->describe($path);
        } catch (PictureFailure $e) {
            throw Refusal::invalid('unreadable-picture', $e->getMessage(), 'file');
        }
        if ($picture['width'] < 1 || $picture['height'] < 1) {
            throw Refusal::invalid('unreadable-picture', 'This file cannot be read as a picture: it is damaged, or of a kind that is not supported.', 'file');
        }
        if ($picture['width'] * $picture['height'] > self::MOST_PIXELS) {
            throw Refusal::tooLarge(\sprintf('This picture has %d × %d pixels; at most 250 million are taken in. Scan it at a lower resolution.', $picture['width'], $picture['height']), 'file');
        }
        $name = self::cleanName($name);
        $hash = $this->files->takeIn($path);

        return $this->recorder->record($project, $user, $changeId, 'Bring in '.mb_substr($name, 0, 100), static function (Workspace $workspace) use ($hash, $path, $name, $mediaType, $picture, $storey): void {
            [$sourceId, $pageId, $drawingId] = [new UuidV7(), new UuidV7(), new UuidV7()];
            $workspace->add(RowType::Source, $sourceId, ['name' => $name, 'sha256' => $hash, 'bytes' => (int) filesize($path), 'mediaType' => $mediaType], 'source');
            $page = $workspace->add(RowType::Page, $pageId, ['source' => $sourceId->toRfc4122(), 'number' => 1, 'width' => $picture['width'], 'height' => $picture['height'], 'resolution' => $picture['resolution']], 'page');
            \assert($page instanceof Page);
            $title = pathinfo($name, \PATHINFO_FILENAME);
            $workspace->add(RowType::Drawing, $drawingId, [
                'page' => $pageId->toRfc4122(), 'storey' => $storey->toRfc4122(), 'name' => '' === $title ? 'Drawing' : mb_substr($title, 0, 120), 'kind' => DrawingKind::Plan->value,
                'left' => 0.0, 'top' => 0.0, 'width' => $picture['width'], 'height' => $picture['height'], 'fade' => 1.0,
            ], 'drawing');
            $workspace->add(RowType::Fit, $drawingId, DrawingFit::valuesOf(FitKeeper::guess($page), true, null), 'fit');
        });
    }

    /** The content decides, not the name. */
    private static function mediaType(string $path): string
    {
        $head = (string) file_get_contents($path, false, null, 0, 16);

        return match (true) {
            '' === $head => throw Refusal::invalid('empty-file', 'This file is empty. Copy or scan it again.', 'file'),
            str_starts_with($head, "\x89PNG\r\n\x1A\n") => 'image/png',
            str_starts_with($head, "\xFF\xD8\xFF") => 'image/jpeg',
            default => throw Refusal::invalid('not-a-picture', 'This is neither a JPEG nor a PNG picture, whatever its name says.', 'file'),
        };
    }

    private static function cleanName(string $name): string
    {
        $clean = trim((string) preg_replace('/[\x00-\x1F\x7F\/\\\\]+/u', ' ', mb_scrub($name)));

        return '' === $clean ? 'picture' : mb_substr($clean, 0, 200);
    }
}
