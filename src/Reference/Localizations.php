<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\UnusablePairs;

/** Localizations of a project, read from their files. */
final class Localizations
{
    public function __construct(private readonly LocalizationRepository $kept)
    {
    }

    /** @throws UnusableInput when there is none, or its file cannot be read */
    public function read(Project $project, int $id): ReadLocalization
    {
        $kept = $this->kept->in($project, $id) ?? throw new UnusableInput('/localization', 'there is no such localization in this project');
        try {
            $file = LocalizationJson::read($kept->file);
        } catch (UnusablePairs $e) {
            throw new UnusableInput('/localization', $e->getMessage());
        }

        return new ReadLocalization($kept->name, $file['system'], $file['heights'], $file['localization']);
    }

    /**
     * For the list. A file that cannot be read does not take the page with it; it says so in its place.
     *
     * @return list<array{id: int, name: string, system: string, pairs: int, vertical: string}>
     */
    public function listed(Project $project): array
    {
        $list = [];
        foreach (array_reverse($this->kept->of($project)) as $kept) {
            $file = json_decode($kept->file, true, 64);
            $file = \is_array($file) ? $file : [];
            $system = $file['grid']['system'] ?? null;
            $vertical = $file['vertical']['model'] ?? null;
            $list[] = [
                'id' => $kept->id(), 'name' => $kept->name, 'system' => \is_string($system) ? $system : 'cannot be read',
                'pairs' => \is_array($file['pairs'] ?? null) ? \count($file['pairs']) : 0,
                'vertical' => \is_string($vertical) ? $vertical : '',
            ];
        }

        return $list;
    }
}
