import fc from 'fast-check';

// One seed for all samples: what fails once fails again. A property may set its own.
fc.configureGlobal({ seed: 20261121 });
export default fc;
