/** Words of the screens of app, one list a part. */

export const APP_ROUTES = {
  boardVoltrek: 'Board, voltrek',
  atlasVoltrek: 'Atlas, voltrek',
  kitVoltrek: 'Kit, voltrek',
  houseRulesVoltrek: 'House rules, voltrek',
  benchVoltrek: 'Bench, voltrek',
  practiceVoltrek: 'Practice, voltrek',
  logVoltrek: 'Log, voltrek',
  vehiclesVoltrek: 'Vehicles, voltrek',
  vehicleVoltrek: 'Vehicle, voltrek',
  filesVoltrek: 'Files, voltrek',
  setUpVoltrek: 'Set-up, voltrek',
  batteriesVoltrek: 'Batteries, voltrek',
  batteryRecordVoltrek: 'Battery record, voltrek',
  followUpsVoltrek: 'Follow-ups, voltrek',
  jobVoltrek: 'Job, voltrek',
  notHereVoltrek: 'Not here, voltrek',
} as const;

export const APP = {
  aNewerVersionIsHereReload: 'A newer version is here. Reload when the work allows.',
  aPartOfTheApplicationCould: 'A part of the application could not be loaded. Reload it.',
  reload: 'Reload',
  later: 'Later',
  thisDeviceCannotKeepTapsThey:
    'This device cannot keep taps: they go straight to the server, and only there.',
} as const;
